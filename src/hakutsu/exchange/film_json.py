"""A film analysis as JSON: the contract of `hakutsu film --json`. Keys may be added, never removed."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from hakutsu.core.film import Baseline, FilmAnalysis, NextSpot, PanelFilm, ZoneStory


def _baseline(baseline: Baseline | None) -> dict[str, Any] | None:
    if baseline is None:
        return None
    return {
        "median": round(baseline.median, 2),
        "low": round(baseline.low, 2),
        "high": round(baseline.high, 2),
        "kind": baseline.kind,
        "probability": round(baseline.probability, 6),
        "anchored_on": list(baseline.anchored_on),
        "weak": baseline.weak,
    }


def _panel(panel: PanelFilm) -> dict[str, Any]:
    chances, share = panel.probabilities, panel.filled_share
    return {
        "panel": panel.panel,
        "readings": panel.readings,
        "state": panel.state,
        "probabilities": None if chances is None else {str(state): chance for state, chance in chances.items()},
        "filled_share": None if share is None else {"median": share.median, "low": share.low, "high": share.high},
        "changes_towards": None if panel.changes_towards is None else panel.changes_towards[0],
        "reasons": list(panel.reasons),
        "words": panel.words,
        "concern": None if panel.judged is None else panel.judged.concern,
        "concern_because": None if panel.judged is None else panel.judged.because,
        "median_um": panel.median_um,
        "headroom_um": None if panel.headroom is None else panel.headroom.um,
        "headroom_because": None if panel.headroom is None else panel.headroom.because,
        "weights_bits": None if panel.weights is None else asdict(panel.weights),
    }


def _next(spot: NextSpot | None) -> dict[str, Any] | None:
    return None if spot is None else {"panel": spot.panel, "u": spot.u, "v": spot.v, "gain_bits": spot.gain_bits}


def _zone(zone: ZoneStory) -> dict[str, Any]:
    return {
        "zone": zone.zone,
        "probability": zone.probability,
        "for": list(zone.speaks_for),
        "against": list(zone.speaks_against),
    }


def film_json(analysis: FilmAnalysis, spot: NextSpot | None) -> dict[str, Any]:
    """One survey's analysis as plain data; thicknesses in µm, probabilities unrounded. `spot` is where to read next."""
    return {
        "survey": analysis.survey,
        "school": str(analysis.school),
        "baseline_um": _baseline(analysis.baseline),
        "baseline_alternative_um": _baseline(analysis.alternative),
        "panels": [_panel(panel) for panel in analysis.panels],
        "baseline_by_substrate_um": {str(kind): _baseline(base) for kind, base in analysis.by_substrate.items()},
        "next": _next(spot),
        "story": [_zone(zone) for zone in analysis.story],
        "warnings": list(analysis.warnings),
    }
