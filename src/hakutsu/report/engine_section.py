"""What the report says of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.engine.oil import OilVerdict
from hakutsu.figures.warm_up import warm_up_curve
from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import Terms

COLD = {True: "proven by a separate thermometer", False: "it was not cold", None: "not proven"}


@dataclass(frozen=True, slots=True)
class EngineSection:
    """The curve where there were readings, findings, and everything said, by subject."""

    curve: str
    found: tuple[FoundLine, ...]
    lines: tuple[tuple[str, str], ...]

    @property
    def empty(self) -> bool:
        """True when nobody measured."""
        return not (self.curve or self.found or self.lines)


def engine_section(reckoning: Reckoning) -> EngineSection:
    """Gather the section from a reckoning."""
    terms, seen, found = reckoning.terms, reckoning.dossier.engine, reckoning.engine
    lines = [("Cold before the start", COLD[found.cold])] if seen.start is not None else []
    if found.samples:
        lines.append(("Warming up", f"{found.verdict.warming}: {terms.say(found.verdict.words)}"))
    lines += [body_words(run.start.body, terms) for run in seen.runs if run.start is not None]
    lines += [body_words(one.body, terms) for one in seen.looks]
    if found.idle is not None:
        lines.append(("Idle", f"{found.idle.idling}: {found.idle.words}"))
    if found.oil is not None:
        lines.append(("Oil pressure", oil_words(found.oil, terms)))
    if seen.bay is not None:
        lines.append(body_words(seen.bay.body, terms))
    again = [one.words for one in found.after_drive if not one.done]
    if again:
        lines.append(("Not looked at again after the drive", "; ".join(again)))
    lines += [body_words(one.body, terms) for one in seen.ears] + [body_words(one.body, terms) for one in seen.needles]
    lines += [body_words(one.body, terms) for looks in seen.fluid_looks.values() for one in looks]
    if found.air is not None and seen.air is not None:
        lines.append(("Air-conditioning", f"{found.air.cooling}; {found.air.because}"))
        lines.append(("Measured", body_words(seen.air.body, terms)[1]))
    elif seen.air is not None:
        lines.append(body_words(seen.air.body, terms))
    if seen.air_by_hand is not None:
        lines.append(body_words(seen.air_by_hand.body, terms))
    lines += [("Starter battery", f"{one.level}: {one.words}") for one in found.battery]
    lines += _pack_lines(reckoning)
    curve = Markup(warm_up_curve(found.samples, found.warm_up, terms)) if found.samples else ""
    told = tuple(found_line(one, terms) for one in found.findings())
    return EngineSection(curve, told, tuple(lines))


def _pack_lines(reckoning: Reckoning) -> list[tuple[str, str]]:
    """What the high-voltage pack says."""
    seen = reckoning.dossier.engine
    said, expected = reckoning.engine.pack
    lines = [("High-voltage pack", f"{one.level}: {one.words}") for one in said]
    if seen.pack is not None and seen.pack.body.health is not None:
        usual = (
            "" if expected is None else f"; usual at this age {_percent(expected.low)} to {_percent(expected.high)} %"
        )
        lines.append(("High-voltage pack", f"health {_percent(seen.pack.body.health)} %{usual}"))
    return lines


def oil_words(verdict: OilVerdict, terms: Terms) -> str:
    """What oil pressures say, with the rise and its interval."""
    if verdict.rise is None:
        return f"{terms.say(verdict.words)}; rise not known: read it at two speeds"
    scale = terms.scale("pressure")
    low, high = (scale.number(one) for one in (verdict.rise.low, verdict.rise.high))
    rise = f"rises by {scale.words(verdict.rise.median)} ({low} to {high}) for each 1,000 rpm"
    return f"{terms.say(verdict.words)}; {rise}"


def _percent(share: float) -> str:
    return f"{100 * share:.0f}"


@report_section("engine", 70, "_engine.html")
def _engine(making: Making) -> EngineSection:
    """The engine station."""
    return engine_section(making.reckoning)
