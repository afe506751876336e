"""The application: routers, errors, and the built front end with everything its own pages need."""

import mimetypes
from collections.abc import Collection
from pathlib import Path

from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import Response

from ready_corner.practising import Practising
from ready_corner.web import cars, entries, errors, gate, jig, layouts, practice, shop, stance, travel
from ready_corner.web.guard import Guard
from ready_corner.workshop import Workshop

FILES = {"js", "css", "json", "map", "svg", "png", "ico", "woff2", "txt", "webmanifest"}  # an address that ends so is no page
FOREVER = "public, max-age=31536000, immutable"


def make_app(
    workshop: Workshop, front_end: Path | None, hosts: Collection[str] | None = None, door: gate.Gate | None = None
) -> FastAPI:
    """Return the application on a workshop; without a front end it serves the API alone.

    ``hosts``: names it answers under, None for any; ``door``: who is let in from the shop's network, None where there is no door to it.
    """
    app = FastAPI(title="Ready Corner", version="0.1.0", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.workshop, app.state.practising = workshop, Practising(workshop)
    app.state.ending = False  # whoever listens for news is let go then
    app.state.tool = None  # where a tool answers at the end of a line, once there is one
    app.add_middleware(GZipMiddleware, minimum_size=1024, compresslevel=5)
    app.state.gate = door
    if door:
        app.add_middleware(gate.GateKeeper, gate=door)
    app.add_middleware(Guard, hosts=hosts)
    errors.install(app)
    for router in (
        cars.router,
        entries.router,
        shop.router,
        layouts.router,
        travel.router,
        jig.router,
        stance.router,
        practice.router,
        gate.router,
    ):
        app.include_router(router, prefix="/api", responses={422: {"model": errors.Refusal}})
    if front_end is not None:
        _serve(app, front_end.absolute())
    return app


def _serve(app: FastAPI, folder: Path) -> None:
    """Serve the built front end from memory, so that no request that waits for the database stands in its way.

    An address that names no file is a page, which finds its own way.
    """
    built = {str(f.relative_to(folder)): f.read_bytes() for f in folder.rglob("*") if f.is_file()}

    @app.get("/{path:path}", include_in_schema=False)
    async def anything(path: str) -> Response:
        name = path if path in built else "index.html"
        last = path.rsplit("/", 1)[-1].lower()
        if path.startswith("api/") or (path not in built and "." in last and last.rsplit(".", 1)[-1] in FILES):
            refusal = errors.Refusal(code="not_found", sentence=f"There is nothing at /{path}.", problems=[])
            return Response(refusal.model_dump_json(), 404, media_type="application/json")
        kind = mimetypes.guess_type(name)[0] or "application/octet-stream"
        return Response(
            built[name], media_type=kind, headers={"cache-control": FOREVER if name.startswith("assets/") else "no-cache"}
        )
