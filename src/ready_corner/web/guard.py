"""What every request passes first: whose name it was asked under, by whose page, how much it carries; and what every answer says to the browser."""

import contextlib
from collections.abc import Collection, Mapping

from starlette.datastructures import Headers, MutableHeaders
from starlette.requests import ClientDisconnect
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

LARGEST_BODY = 2_000_000  # bytes; a plan with 400 points is 40 kB
LARGEST_FILE = 100_000_000  # bytes; of a whole workshop brought in
LOOPBACK = ("127.0.0.1", "localhost", "::1")
READS = ("GET", "HEAD", "OPTIONS")
POLICY = "; ".join(
    (
        "default-src 'none'", "script-src 'self'", "style-src 'self'", "font-src 'self'", "img-src 'self' data: blob:", "connect-src 'self'",
        "worker-src 'self'", "manifest-src 'self'", "form-action 'self'", "base-uri 'none'", "frame-ancestors 'none'",
    )
)  # fmt: skip
HEADERS = {
    "content-security-policy": POLICY,
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
}


def refused(status: int, code: str, sentence: str, headers: Mapping[str, str] | None = None) -> JSONResponse:
    """Return a refusal in the one format, before any route was asked."""
    return JSONResponse({"code": code, "sentence": sentence, "problems": []}, status, headers)


class Guard:
    """Refuses hosts that are not this machine's, writes of pages that are not its own, and bodies that are too large; adds the headers of every answer.

    ``hosts``: names the application answers under; None for any.
    """

    def __init__(self, app: ASGIApp, hosts: Collection[str] | None = None) -> None:
        self.app, self.hosts = app, hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        taken, over = 0, False

        async def say(message: Message) -> None:
            if over:  # whatever the application makes of half a body
                return
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(HEADERS)
            await send(message)

        async def refuse(status: int, code: str, sentence: str) -> None:
            await refused(status, code, sentence)(scope, receive, say)

        if self.hosts is not None and (name := _name(headers.get("host", ""))) not in self.hosts:
            said = f"Ready Corner does not answer as “{name}”. Open it at http://127.0.0.1 and its port."
            await refuse(421, "strange_host", said)
            return
        reads = scope["method"] in READS
        if not own_page(headers, reads=reads):
            said = "This was sent by another page than Ready Corner's own, and is not taken."
            await refuse(403, "strange_origin", said)
            return
        if (
            not reads
            and _carries(headers)
            and headers.get("content-type", "").split(";")[0].strip().lower() != "application/json"
        ):
            await refuse(415, "not_json", "What is sent here is JSON and says so: content-type application/json.")
            return
        most = LARGEST_FILE if scope["path"] == "/api/workshop" else LARGEST_BODY
        too_large = f"That is too much for one request: at most {most / 1e6:g} MB are taken. Send less at a time."
        if int(headers.get("content-length") or 0) > most:
            await refuse(413, "too_large", too_large)
            return

        async def count() -> Message:
            nonlocal taken, over
            message = await receive()
            taken += len(message.get("body", b""))
            over = over or taken > most
            return {"type": "http.disconnect"} if over else message

        with contextlib.suppress(ClientDisconnect):
            await self.app(scope, count, say)
        if over:
            over = False
            await refuse(413, "too_large", too_large)


def own_page(headers: Headers, *, reads: bool = False) -> bool:
    """Whether a request comes from a page of this very address, its port included: not merely of the same machine. What is no page says neither;
    what only ``reads`` may be led here from anywhere, by a link."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    own = origin is None or (bool(host := headers.get("host")) and origin in (f"http://{host}", f"https://{host}"))
    return own and (reads or site in (None, "same-origin", "none"))


def _carries(headers: Headers) -> bool:
    """Whether a request has a body."""
    return "transfer-encoding" in headers or headers.get("content-length", "0").strip() != "0"


def _name(host: str) -> str:
    """Return the name in a host header, without its port."""
    if host.startswith("["):
        return host[1:].split("]", maxsplit=1)[0].lower()
    return host.rsplit(":", 1)[0].lower() if host.count(":") == 1 else host.lower()
