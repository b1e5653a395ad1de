"""The report: entries in words, its sections, its template."""

from hakutsu.report import (
    body_wording,
    cabin_section,
    corner_wording,
    engine_wording,
    functions_section,
    picture_wording,
    under_section,
)

__all__ = [
    "body_wording",
    "cabin_section",
    "corner_wording",
    "engine_wording",
    "functions_section",
    "picture_wording",
    "under_section",
]
