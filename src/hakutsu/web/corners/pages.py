"""Routes of the corner station."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.reckoning import Reckoning
from hakutsu.web.corners.context import corners_context, corners_fragments
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


@router.get("/inspections/{inspection}/corners")
def show_corners(request: Request, reckoning: ReckoningHere, at: str = "") -> Response:
    """Four corners, the spare, and the brakes as a whole."""
    return page(request, "corners/station.html", tab="corners", **corners_context(reckoning, at))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return corners_fragments(reckoning)


def _wheel(part: str) -> str:
    return f"corners?at={part.replace('brake_', 'wheel_')}"


station_page(
    StationPage("corners", "Corners", Phase.AT_THE_VEHICLE, 50, router, _fragments,
                covers={"tyres": _wheel, "brakes": _wheel},
                shows={"corner.": lambda entry, _: _wheel(entry.place or "whole")})
)  # fmt: skip
