"""Entries of pictures, in words."""

from __future__ import annotations

from hakutsu.entries.pictures import Described, Marked, Picture
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN, Terms


@body_words.register
def _(body: Picture, terms: Terms = PLAIN) -> tuple[str, str]:
    return str(body.kind).capitalize(), f"{body.name or 'without name'}, {body.size / 1024:,.0f} kB"


@body_words.register
def _(body: Described, terms: Terms = PLAIN) -> tuple[str, str]:
    said = [body.words, str(body.looks), ", ".join(body.tags)]
    return "Picture described", "; ".join(part for part in said if part)


@body_words.register
def _(body: Marked, terms: Terms = PLAIN) -> tuple[str, str]:
    return "Picture marked", f"{len(body.marks)} marks" if len(body.marks) != 1 else "1 mark"
