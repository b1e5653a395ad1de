"""Routes of the corner station."""

from __future__ import annotations

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.web.corners.context import corners_context
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/corners")
def show_corners(request: Request, reckoning: ReckoningHere, at: str = "") -> Response:
    """Four corners, the spare, and the brakes as a whole."""
    return page(request, "corners/station.html", tab="corners", **corners_context(reckoning, at))
