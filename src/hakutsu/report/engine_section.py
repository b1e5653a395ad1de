"""What the report says of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.figures.warm_up import warm_up_curve
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words


@dataclass(frozen=True, slots=True)
class EngineSection:
    """The curve where there were readings, and everything said, by subject."""

    curve: str
    lines: tuple[tuple[str, str], ...]

    @property
    def empty(self) -> bool:
        """True when nobody measured."""
        return not (self.curve or self.lines)


def engine_section(reckoning: Reckoning) -> EngineSection:
    """Gather the section from a reckoning."""
    terms, seen, found = reckoning.terms, reckoning.dossier.engine, reckoning.engine
    lines = []
    if found.samples:
        lines.append(("Warming up", f"{found.verdict.warming}: {terms.say(found.verdict.words)}"))
    if seen.start is not None:
        lines.append(body_words(seen.start.body, terms))
    lines += [body_words(one.body, terms) for one in seen.looks]
    lines += [("Smoke", one) for one in found.smoke]
    lines += [body_words(one.body, terms) for one in seen.fluids.values()]
    for one in found.fluids:
        lines.append(("Fluids", terms.say(f"{one.words} ({one.follows}){f'; {one.next}' if one.next else ''}")))
    if found.air is not None and seen.air is not None:
        lines.append(("Air-conditioning", f"{found.air.cooling}; {found.air.because}"))
        lines.append(("Measured", body_words(seen.air.body, terms)[1]))
    lines += [("Starter battery", f"{one.level}: {one.words}") for one in found.battery]
    said, expected = found.pack
    lines += [("High-voltage pack", f"{one.level}: {one.words}") for one in said]
    if seen.pack is not None and seen.pack.body.health is not None:
        usual = (
            "" if expected is None else f"; usual at this age {_percent(expected.low)} to {_percent(expected.high)} %"
        )
        lines.append(("High-voltage pack", f"health {_percent(seen.pack.body.health)} %{usual}"))
    curve = Markup(warm_up_curve(found.samples, found.warm_up, terms)) if found.samples else ""
    return EngineSection(curve, tuple(lines))


def _percent(share: float) -> str:
    return f"{100 * share:.0f}"
