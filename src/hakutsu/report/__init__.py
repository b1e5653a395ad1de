"""The report: entries in words, its sections, its template."""

from hakutsu.report import body_wording, picture_wording

__all__ = ["body_wording", "picture_wording"]
