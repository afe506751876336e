"""The door to the shop's own network: a passphrase opens it for one device, and this machine itself needs none.

Loopback stays open as ever. Whoever comes from elsewhere gets the pages, which hold nothing, and no answer of the API before the passphrase
was given; then a cookie that scripts cannot read lets the device in until the passphrase is changed.
"""

import hashlib
import hmac
import json
import secrets
import threading
import time
from collections import deque
from collections.abc import Callable, Sequence
from io import BytesIO
from typing import Annotated

import segno
from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from fastapi import APIRouter, Request, Response
from pydantic import Field
from starlette.datastructures import Headers
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Receive, Scope, Send

from ready_corner.border.base import Model
from ready_corner.web.guard import refused
from ready_corner.web.view import View

COOKIE = "ready_corner_device"
LASTS = 90 * 24 * 3600  # s; then the passphrase is asked for again
TRIES, WITHIN = 5, 60.0  # wrong ones from one address, and the seconds they are counted over
TRIES_OF_ALL = 40  # wrong ones from all addresses together, in the same time
AT_ONCE = 2  # tries that may wait for a hash; whoever comes while so many do is asked to come again, and holds nothing up
LEAST = 8  # characters of a passphrase, dashes and spaces not counted
OPEN = "127.0.0.1"  # where nothing is asked
MOST_ADDRESSES = 1000  # whose wrong tries are remembered
MOST_DEVICES = 200  # that are remembered; the earliest is forgotten, not let go
KINDS = (
    ("iPad", "tablet"),
    ("Tablet", "tablet"),
    ("iPhone", "phone"),
    ("Mobile", "phone"),
    ("Android", "tablet"),
    ("Mozilla", "computer"),
)
_CONSONANTS, _VOWELS = "bdfgklmnprstvz", "aeiou"


def make_passphrase() -> str:
    """Return a passphrase that can be read out and typed with one thumb, of about 49 bits."""
    syllables = [secrets.choice(_CONSONANTS) + secrets.choice(_VOWELS) for _ in range(8)]
    return "-".join(a + b for a, b in zip(syllables[::2], syllables[1::2], strict=True))


def seal(passphrase: str) -> str:
    """Return what is kept of a passphrase: its argon2 hash, and a secret that every device's cookie is made with."""
    if len(_plain(passphrase)) < LEAST:
        raise ValueError(f"a passphrase has {LEAST} characters at least; dashes and spaces do not count")
    return json.dumps({"hash": PasswordHasher().hash(_plain(passphrase)), "secret": secrets.token_hex(32)})


def _plain(passphrase: str) -> str:
    """Spaces, hyphens and capitals do not matter: it is typed in a shop."""
    return "".join(passphrase.lower().split()).replace("-", "")


class BusyError(RuntimeError):
    """So many passphrases are being looked at that this one has to come again."""


class Device(Model):
    """A device that was let in: its number, who measures on it, what it says it is, and when, in seconds; ``gone``: let go since."""

    id: Annotated[str, Field(max_length=40)]
    who: Annotated[str, Field(max_length=80)] = ""
    kind: Annotated[str, Field(max_length=20)] = ""
    at: int
    gone: bool = False


def open_with(kept: str, passphrase: str) -> bool:
    """Whether a passphrase is the one that a seal was made with; raises ValueError where what is kept is no seal."""
    try:
        return PasswordHasher().verify(str(json.loads(kept)["hash"]), _plain(passphrase))
    except VerificationError:
        return False
    except InvalidHashError as wrong:
        raise ValueError from wrong


class Gate:
    """Who is let in. ``kept``: as ``seal`` made it; ``address``: where the shop's door is; ``clock`` in seconds. ``devices``: those that were let in
    before, each written down with ``keep`` as it comes and goes.

    Raises ValueError where what is kept is no seal.
    """

    def __init__(
        self,
        kept: str,
        address: str,
        clock: Callable[[], float] = time.time,
        devices: Sequence[Device] = (),
        keep: Callable[[Sequence[Device]], None] = lambda _: None,
    ) -> None:
        seals = json.loads(kept)
        self._hash, self._secret = str(seals["hash"]), bytes.fromhex(seals["secret"])
        self.address, self._clock = address, clock
        self._devices, self._keep = {d.id: d for d in devices}, keep
        self._wrong: dict[str, deque[float]] = {}
        self._of_all: deque[float] = deque()
        self._noting = threading.Lock()
        self._waiting = threading.BoundedSemaphore(AT_ONCE)
        self._one = threading.Lock()  # a hash takes 64 MB: one at a time

    def token(self, who: str = "", agent: str = "") -> str:
        """Return a cookie for one device, and note that it was let in: who measures on it, and what its browser says of it."""
        device = Device(id=secrets.token_hex(8), who=who[:80], kind=_kind(agent), at=int(self._clock()))
        self._note(device)
        body = f"{device.at}.{device.id}"
        return f"{body}.{self._sign(body)}"

    def _note(self, device: Device) -> None:
        with self._noting:
            fresh = [d for d in self._devices.values() if d.id != device.id and self._clock() - d.at <= LASTS]
            self._devices = {d.id: d for d in (*fresh[1 - MOST_DEVICES :], device)}
            self._keep(tuple(self._devices.values()))

    @property
    def devices(self) -> tuple[Device, ...]:
        """The devices that are let in, the latest first."""
        return tuple(d for d in reversed(self._devices.values()) if not d.gone and self._clock() - d.at <= LASTS)

    def let_go(self, number: str) -> bool:
        """Let one device go: it has to give the passphrase again. False where none is let in by that number."""
        device = self._devices.get(number)
        if device is None or device.gone:
            return False
        self._note(device.model_copy(update={"gone": True}))
        return True

    def _sign(self, body: str) -> str:
        return hmac.new(self._secret, body.encode(), hashlib.sha256).hexdigest()

    def knows(self, token: str) -> bool:
        """Whether a cookie was made by this passphrase, and lately enough."""
        body, _, signed = token.rpartition(".")
        if not hmac.compare_digest(signed.encode(), self._sign(body).encode()):
            return False
        at, _, number = body.partition(".")
        device = self._devices.get(number)
        return 0 <= self._clock() - int(at) <= LASTS and not (device and device.gone)

    def wait(self, who: str) -> float:
        """Return how many seconds an address has to wait before it may try again."""
        waits = 0.0
        for tried, most in ((self._wrong.get(who, deque()), TRIES), (self._of_all, TRIES_OF_ALL)):
            while tried and tried[0] <= self._clock() - WITHIN:
                tried.popleft()
            if len(tried) >= most:
                waits = max(waits, tried[0] + WITHIN - self._clock())
        return waits

    def tries(self, who: str, passphrase: str, name: str = "", agent: str = "") -> str | None:
        """Return a cookie where the passphrase is right, as ``token`` makes it; a wrong try is counted. Raises BusyError while others are being
        looked at."""
        if self.wait(who):
            return None
        if not self._waiting.acquire(blocking=False):
            raise BusyError
        try:
            return self.token(name, agent) if self._tried(who, passphrase) else None
        finally:
            self._waiting.release()

    def _tried(self, who: str, passphrase: str) -> bool:
        with self._one:
            if self.wait(who):
                return False
            try:
                PasswordHasher().verify(self._hash, _plain(passphrase))
            except (VerificationError, InvalidHashError):
                if len(self._wrong) >= MOST_ADDRESSES:
                    self._wrong.pop(next(iter(self._wrong)))
                self._wrong.setdefault(who, deque()).append(self._clock())
                self._of_all.append(self._clock())
                return False
            self._wrong.pop(who, None)
            return True


def _kind(agent: str) -> str:
    """Return what a browser says that it runs on, in a word of the shop; empty where it says none that is known."""
    return next((word for sign, word in KINDS if sign in agent), "")


class GateKeeper:
    """Lets nobody from the shop's network to the API before the gate knows the device."""

    def __init__(self, app: ASGIApp, gate: Gate) -> None:
        self.app, self.gate = app, gate

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http" or (scope.get("server") or ("",))[0] == OPEN:
            await self.app(scope, receive, send)
            return
        path = scope["path"]
        if path.startswith("/api/") and path != "/api/gate" and not self.gate.knows(cookie_of(Headers(scope=scope))):
            said = "This device is not let in yet. Give the passphrase of the shop."
            await refused(401, "locked", said)(scope, receive, send)
            return
        await self.app(scope, receive, send)


def cookie_of(headers: Headers) -> str:
    """Return the device's cookie; empty where it has none."""
    for part in headers.get("cookie", "").split(";"):
        name, _, value = part.strip().partition("=")
        if name == COOKIE:
            return value
    return ""


router = APIRouter()


class GateView(View):
    """Whether there is a door to the shop's network, where it is, whether this device still has to give the passphrase, and whether it is the
    machine where Ready Corner was started."""

    shop: bool
    address: str
    locked: bool
    here: bool = False


class Passphrase(Model):
    """What was typed at the door: the passphrase, and who measures on the device."""

    passphrase: Annotated[str, Field(max_length=200)]
    who: Annotated[str, Field(max_length=80)] = ""


def _at_loopback(request: Request) -> bool:
    return bool((request.scope.get("server") or ("",))[0] == OPEN)


@router.get("/gate")
def gate(request: Request) -> GateView:
    """Return how the door stands for this device."""
    found: Gate | None = request.app.state.gate
    if found is None:
        return GateView(shop=False, address="", locked=False)
    locked = not _at_loopback(request) and not found.knows(cookie_of(request.headers))
    return GateView(shop=True, address="" if locked else found.address, locked=locked, here=_at_loopback(request))


@router.post("/gate", response_model=GateView)
def let_in(given: Passphrase, request: Request) -> Response:
    """Let a device in whose passphrase is right."""
    found: Gate | None = request.app.state.gate
    if found is None:
        return refused(404, "no_door", "There is no door to the shop's network. Start with: ./start --shop")
    who = request.client.host if request.client else ""
    try:
        token = found.tries(who, given.passphrase, given.who, request.headers.get("user-agent", ""))
    except BusyError:
        return refused(429, "busy", "Others are at the door just now. Try again in a moment.", {"retry-after": "1"})
    if token is None:
        wait = found.wait(who)
        if wait:
            return refused(
                429,
                "too_many",
                f"That was wrong too often. Wait {wait:.0f} seconds, then try again.",
                {"retry-after": f"{wait:.0f}"},
            )
        return refused(
            403, "wrong_passphrase", "That is not the passphrase. It was printed where Ready Corner was started with --shop."
        )
    answer = JSONResponse(GateView(shop=True, address=found.address, locked=False).model_dump())
    answer.set_cookie(COOKIE, token, max_age=LASTS, httponly=True, samesite="strict", path="/")
    return answer


class DeviceView(View):
    """A device that is let in; ``at`` in seconds since 1970."""

    id: str
    who: str
    kind: str
    at: int


class LetGo(Model):
    """Which device is let go."""

    id: Annotated[str, Field(max_length=40)]


NOT_HERE = (403, "not_here", "Who is let in is seen and changed at the machine where Ready Corner was started.")


@router.get("/gate/devices", response_model=list[DeviceView])
def devices(request: Request) -> list[DeviceView] | Response:
    """Return the devices that are let in from the shop's network, the latest first; at this machine alone."""
    found: Gate | None = request.app.state.gate
    if not _at_loopback(request):
        return refused(*NOT_HERE)
    return [DeviceView(id=d.id, who=d.who, kind=d.kind, at=d.at) for d in (found.devices if found else ())]


@router.post("/gate/let-go", response_model=list[DeviceView])
def let_go(asked: LetGo, request: Request) -> list[DeviceView] | Response:
    """Let one device go, which then has to give the passphrase again; return the others. At this machine alone."""
    found: Gate | None = request.app.state.gate
    if not _at_loopback(request):
        return refused(*NOT_HERE)
    if found is None or not found.let_go(asked.id):
        return refused(404, "no_device", "No such device is let in any more.")
    return devices(request)


@router.get("/gate/code.svg", response_class=Response)
def code(request: Request) -> Response:
    """Return the address of the shop's door as a QR code."""
    found: Gate | None = request.app.state.gate
    if found is None:
        return refused(404, "no_door", "There is no door to the shop's network. Start with: ./start --shop")
    drawn = BytesIO()
    segno.make(found.address, error="m").save(drawn, kind="svg", scale=8, border=3)
    return Response(drawn.getvalue(), media_type="image/svg+xml")
