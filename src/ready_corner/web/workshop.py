"""How a route gets at the workshop."""

from typing import Annotated, cast

from fastapi import Depends, Request

from ready_corner.workshop import Workshop


def _workshop(request: Request) -> Workshop:
    return cast(Workshop, request.app.state.workshop)


TheWorkshop = Annotated[Workshop, Depends(_workshop)]
