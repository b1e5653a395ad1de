"""Thickness nobody measured, from how it was told: a share or a distance left, or compared with another corner."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TypeVar

from hakutsu.core.corners.tyres import corner_table, new_depth, ruling_depth
from hakutsu.core.life.measured import wear_table
from hakutsu.entries.corners import Brake, Compared, Lining, PerCentOf, Tyre
from hakutsu.vehicle.places import corners_of

Span = tuple[float, float]
PartT = TypeVar("PartT", Brake, Tyre)


def pad_span(wheel: str, brake: Brake) -> Span | None:
    """Friction left [mm], from and to, as far as it was told; none where it was measured or not told.

    A share is taken from the whole friction or from what may wear: both schools are in use, the span holds both. A
    distance [km] is turned back by what a millimetre lasts. Source: ours, with the priors of `wear.toml`.
    """
    row, limit = wear_table()["pad"], wear_table().pad.limit_mm
    mine = row["front" if "front" in wheel else "rear"]
    new, sd = mine["new_mm"]
    if brake.pad_range_mm:
        return brake.pad_range_mm
    if brake.pad_percent:
        low, high = (one / 100 for one in brake.pad_percent)
        return low * (new - sd), min(new, limit + high * (new + sd - limit))
    if brake.pad_km_left:
        per_mm, gsd = mine["km_per_mm"]
        low, high = brake.pad_km_left
        return limit + low / (per_mm * gsd), min(new + sd, limit + high * gsd / per_mm)
    return None


def pads_told(brakes: Mapping[str, Brake]) -> dict[str, Brake]:
    """Every brake with what was told of its pads as a span [mm]; what was measured stays as it is."""
    found = {}
    for wheel, brake in brakes.items():
        measured = brake.pad_inner_mm is not None or brake.pad_outer_mm is not None
        span = None if measured else pad_span(wheel, brake) or _compared(brake, brakes, _pad_of)
        found[wheel] = brake.model_copy(update={"pad_range_mm": span}) if span else brake
    return {wheel: _lining(one) for wheel, one in found.items()}


def _lining(brake: Brake) -> Brake:
    """Linings that were only looked at, at the middle of what the word means [mm]; down to the rivets is none left."""
    means = corner_table()["drum"]["looks_mm"]
    if brake.lining_mm is not None or brake.lining is Lining.UNKNOWN:
        return brake
    return brake.model_copy(update={"lining_mm": float(means[brake.lining.value])})


def treads_told(tyres: Mapping[str, Tyre], legal_mm: float) -> dict[str, Tyre]:
    """Every tyre with what was told of its depth as a span [mm]; what was measured stays as it is."""
    found = {}
    for wheel, tyre in tyres.items():
        told = tyre.depth_mm or tyre.second_mm or tyre.range_mm or tyre.per_cent is not None
        span = (
            None
            if told
            else _tread_share(tyre, legal_mm) or _compared(tyre, tyres, lambda one, _: _tread(one, legal_mm))
        )
        found[wheel] = tyre.model_copy(update={"range_mm": span}) if span else tyre
    return found


def _tread_share(tyre: Tyre, legal_mm: float) -> Span | None:
    if tyre.per_cent_range is None:
        return None
    new, whole = new_depth(tyre), tyre.per_cent_of is PerCentOf.NEW
    low, high = (one / 100 for one in tyre.per_cent_range)
    return (low * new, high * new) if whole else (legal_mm + low * (new - legal_mm), legal_mm + high * (new - legal_mm))


def _tread(tyre: Tyre, legal_mm: float) -> Span | None:
    share = _tread_share(tyre, legal_mm)
    depth = ruling_depth(tyre, legal_mm)
    return share or (tyre.range_mm or (depth.mm, depth.mm) if depth else None)


def _pad_of(brake: Brake, wheel: str) -> Span | None:
    pads = [one for one in (brake.pad_inner_mm, brake.pad_outer_mm) if one is not None]
    return (min(pads), min(pads)) if pads else pad_span(wheel, brake)


def _compared(part: PartT, others: Mapping[str, PartT], span_of: Callable[[PartT, str], Span | None]) -> Span | None:
    """A span [mm] from that of another corner and how it compares; none where that one is not known either."""
    if part.compared is Compared.UNKNOWN:
        return None
    known = [span_of(others[wheel], wheel) for wheel in corners_of(part.compared_to) if wheel in others]
    spans = [one for one in known if one is not None]
    if not spans:
        return None
    less, more = corner_table()["compared"]["mm"][part.compared.value]
    return max(0.0, min(low for low, _ in spans) + less), max(0.0, max(high for _, high in spans) + more)
