"""How a route gets at the workshop."""

from typing import Annotated, cast

from fastapi import Depends, Request

from ready_corner.workshop import Workshop


async def _workshop(request: Request) -> Workshop:  # async, or every request would take a thread of the pool for it
    return cast(Workshop, request.app.state.workshop)


TheWorkshop = Annotated[Workshop, Depends(_workshop)]
