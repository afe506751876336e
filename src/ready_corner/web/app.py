"""The application: routers, errors, and the built front end with everything its own pages need."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse
from starlette.middleware.gzip import GZipMiddleware
from starlette.requests import Request
from starlette.responses import Response

from ready_corner.web import cars, entries, errors, jig, layouts, shop, stance, travel
from ready_corner.workshop import Workshop

FOREVER = "public, max-age=31536000, immutable"


def make_app(workshop: Workshop, front_end: Path | None) -> FastAPI:
    """Return the application on a workshop; without a front end it serves the API alone."""
    app = FastAPI(title="Ready Corner", version="0.1.0", docs_url="/api/docs", redoc_url=None, openapi_url="/api/openapi.json")
    app.state.workshop = workshop
    app.add_middleware(GZipMiddleware, minimum_size=1024, compresslevel=5)
    errors.install(app)
    for router in (cars.router, entries.router, shop.router, layouts.router, travel.router, jig.router, stance.router):
        app.include_router(router, prefix="/api", responses={422: {"model": errors.Refusal}})
    if front_end is not None:
        _serve(app, front_end.absolute())
    return app


def _serve(app: FastAPI, folder: Path) -> None:
    """Serve files of the built front end; any other address is the page, which finds its own way."""
    page = folder / "index.html"

    @app.get("/{path:path}", include_in_schema=False)
    def anything(path: str, request: Request) -> Response:
        found = (folder / path).resolve()
        if path.startswith("api/"):
            refusal = errors.Refusal(code="not_found", sentence=f"There is nothing at /{path}.", problems=[])
            return Response(refusal.model_dump_json(), 404, media_type="application/json")
        if found.is_file() and found.is_relative_to(folder):
            return FileResponse(found, headers={"cache-control": FOREVER if path.startswith("assets/") else "no-cache"})
        return FileResponse(page, headers={"cache-control": "no-cache"})
