"""What is seen outside, as findings: marks, fit, glass and lamps, rust, trim, additions."""

from __future__ import annotations

from hakutsu.core.body.fit import FitFound
from hakutsu.core.body.glass import SCREEN, glass_words, too_dark
from hakutsu.core.body.trim import trim_words
from hakutsu.core.consequence import SEEN, Looks, base
from hakutsu.core.findings import Finding, found
from hakutsu.core.phrases import says
from hakutsu.dossier.body import Seen
from hakutsu.entries.body import (
    Addition,
    Blemish,
    BlemishKind,
    Depth,
    Fit,
    Glass,
    GlassFault,
    Material,
    Origin,
    Rust,
    ShowsFrom,
    Tint,
    Trim,
    TrimState,
    Works,
)
from hakutsu.vehicle.parts import On, parts
from hakutsu.vehicle.rules import RuleSet
from hakutsu.vehicle.vocabulary import Consequence

NOT_LOOKS: dict[On, str] = {"wheel": "body.wheel_cracked", "pane": "body.glass_crack"}
NO_FAULT = (TrimState.GOOD,)


def mark_code(kind: BlemishKind, on: On) -> str:
    """The code of a mark; a crack is not looks where a wheel or a pane has it."""
    if kind is BlemishKind.CRACK and on in NOT_LOOKS:
        return NOT_LOOKS[on]
    return f"body.{kind.value}"


def mark_found(mark: Seen[Blemish], code: str, asked: Consequence | None, why: str = "") -> Finding:
    """A mark, what it asks for (none: what its code does), and why."""
    body = mark.body
    size = " × ".join(f"{one:g}" for one in (body.length_mm, body.width_mm) if one)
    told = (
        f"{body.count} of them" if body.count > 1 else "",
        f"{size} mm" if size else "",
        "" if body.depth is Depth.UNKNOWN else str(body.depth),
        f"runs on over {', '.join(f'{{place {key}}}' for key in body.also_on)}" if body.also_on else "",
        "all round the vehicle" if body.all_round else "",
        f"shows from {body.shows_from}" if body.shows_from is not ShowsFrom.UNKNOWN else "",
        why,
        body.note,
    )
    unseen = base(code).looks is Looks.MARK and asked is None
    check = "look again from arm’s length: from how far does it show?" if unseen else ""
    one = found(code, mark.place, str(body.kind), [one for one in told if one], consequence=asked, check=check,
                sureness=SEEN)  # fmt: skip
    return one.seen_in(mark.entry.id)


def fits_found(seen: Seen[Fit], fit: FitFound) -> list[Finding]:
    """How a panel sits, a finding for each way in which it sits badly."""
    told: dict[str, list[str]] = {}
    for code, words in fit.told:
        told.setdefault(code, []).append(words)
    return [found(f"body.{code}", fit.panel, "; ".join(words)).seen_in(seen.entry.id) for code, words in told.items()]


def glass_found(seen: Seen[Glass], rules: RuleSet, usual_mark: str | None) -> list[Finding]:
    """A pane or lamp: its fault, how dark it is, whether it was replaced (`usual_mark`: that of most others)."""
    body, place, says = seen.body, seen.place, glass_words(seen, rules)
    lamp = place in parts() and parts()[place].group == "lamp"
    told = []
    if body.fault not in (GlassFault.UNKNOWN, GlassFault.NONE):
        size = (f"{body.size_mm:g} mm",) if body.size_mm else ()
        told.append(found(_glass_code(seen, lamp), place, str(body.fault), (*size, *says)))
    if too_dark(seen, rules):
        told.append(found("body.glass_too_dark", place, "; ".join(says)))
    elif body.tint in (Tint.FILM, Tint.BUBBLED) and body.light_percent is None:
        told.append(found("body.glass_film", place, str(body.tint), says))
    if usual_mark is not None:
        words = f"marked {body.date_mark} where most are marked {usual_mark}: replaced"
        told.append(found("body.glass_replaced", place, words))
    return [one.seen_in(seen.entry.id) for one in told]


def _glass_code(seen: Seen[Glass], lamp: bool) -> str:
    fault = seen.body.fault
    if fault is GlassFault.SCRATCH and seen.body.along_travel and not lamp:
        return "body.glass_scratch_travel"
    if lamp:
        return f"body.lamp_{fault.value}"
    sight = seen.place == SCREEN and seen.body.in_sight and fault in (GlassFault.CHIP, GlassFault.CRACK)
    return f"body.screen_{fault.value}_in_sight" if sight else f"body.glass_{fault.value}"


def rust_found(seen: Seen[Rust]) -> Finding:
    """Rust at a place: by grade, and by whether it is in what carries."""
    body = seen.body
    structure = "_structure" if body.structural else ""
    grade, code = (body.grade, body.grade.value) if body.grade else ("grade not told", "untold")
    words = f"rust{' on structure' if body.structural else ''}, {grade}: {body.where}"
    check = "look at it from the other side too" if body.wants_other_side else ""
    why = "seen from one side only" if check else ""
    size = (f"{body.size_mm:g} mm",) if body.size_mm else ()
    spots = says("rust_at", body.where)
    subject = f"{spots[0]}:{seen.place}" if spots else seen.place
    one = found(f"body.rust_{code}{structure}", subject, words, size, why=why, check=check,
                sureness=SEEN)  # fmt: skip
    return one.seen_in(seen.entry.id)


def trim_found(seen: Seen[Trim]) -> list[Finding]:
    """The state of a piece of trim where it is not good."""
    body = seen.body
    made = "trim" if body.material is Material.UNKNOWN else str(body.material)
    renewed = found("body.trim_renewed", seen.place, f"{made} {body.origin}").seen_in(seen.entry.id)
    told = [renewed] if body.origin is Origin.RENEWED else []
    if body.state in NO_FAULT:
        return told
    origin = "" if body.origin is Origin.UNKNOWN else str(body.origin)
    reasons = [one for one in (trim_words(body), origin, body.note) if one]
    words = f"{made} {body.state}"
    return [*told, found(f"body.trim_{body.state.value}", seen.place, words, reasons).seen_in(seen.entry.id)]


def addition_found(seen: Seen[Addition]) -> list[Finding]:
    """What is wrong with a fitting the vehicle was not built with."""
    body = seen.body
    told = (
        ("addition_dead", "does not work", body.works is Works.NO),
        ("addition_poor", f"poorly put in: {', '.join(body.poor)}", bool(body.poor)),
        ("addition_not_in_sale", "does not go with the vehicle", body.in_sale is False),
        ("addition_holes", f"{body.holes} holes drilled for it", body.holes > 0),
    )
    place = seen.place or "addition:" + "_".join(body.what.casefold().split())
    here = [found(f"body.{code}", place, f"{body.what}: {words}") for code, words, is_so in told if is_so]
    return [one.seen_in(seen.entry.id) for one in here]
