"""A film analysis as JSON: the contract of `hakutsu film --json`. Keys may be added, never removed."""

from __future__ import annotations

from typing import Any

from hakutsu.core.film import Baseline, FilmAnalysis, PanelFilm


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
    }


def film_json(analysis: FilmAnalysis) -> dict[str, Any]:
    """One survey's analysis as plain data; thicknesses in µm, probabilities unrounded."""
    return {
        "survey": analysis.survey,
        "school": str(analysis.school),
        "baseline_um": _baseline(analysis.baseline),
        "baseline_alternative_um": _baseline(analysis.alternative),
        "panels": [_panel(panel) for panel in analysis.panels],
        "next": None,
        "story": [],
        "warnings": list(analysis.warnings),
    }
