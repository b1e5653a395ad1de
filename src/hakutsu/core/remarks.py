"""Remarks in free words as findings: what whole phrases say, and else that somebody remarked it."""

from __future__ import annotations

from hakutsu.core.findings import Finding, found
from hakutsu.core.phrases import denies, says
from hakutsu.entries.general import DidNotWork, Hint, Seen
from hakutsu.entries.registry import Body


def remark_found(body: Body, place: str) -> list[Finding]:
    """What a remark at a place is a finding of; none of one that only denies, or tells what somebody did."""
    match body:
        case Seen():
            return _said(body.text, place)
        case Hint():
            words = f"{body.seen}{f': {body.may_mean}' if body.may_mean else ''}"
            known = [found(f"general.{key}", place, words) for key in says("remark", body.seen)]
            return known or [found("general.hint", place, words, check=body.settled_by)]
        case DidNotWork():
            return [found("general.did_not_work", place, f"did not work: {body.what}")]
    return []


def _said(text: str, place: str) -> list[Finding]:
    keys = says("remark", text)
    if keys:
        return [found(f"general.{key}", place, text) for key in keys]
    return [] if denies(text) else [found("general.remark", place, text)]
