"""What the report says of the vehicle itself: its facts, which of them were told in two ways, where parts come from."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.facts import differ
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.facts import FACT_NAMES


@dataclass(frozen=True, slots=True)
class VehicleSection:
    """Facts by name, those told in two ways with each mention, origins of parts, what was restored."""

    facts: list[tuple[str, str]]
    differing: list[tuple[str, str]]
    origins: list[str]
    restored: list[str]

    @property
    def empty(self) -> bool:
        """True when nobody said anything."""
        return not (self.facts or self.origins or self.restored)


@report_section("facts", 12, "_vehicle.html")
def _vehicle(making: Making) -> VehicleSection:
    """The vehicle itself."""
    terms, said = making.reckoning.terms, making.reckoning.dossier.facts
    facts, differing = [], []
    for fact, mentions in said.mentions.items():
        if not mentions:
            continue
        words = [terms.say(one.words) for one in mentions]
        facts.append((FACT_NAMES[fact], words[-1]))
        if differ(fact, [one.told for one in mentions]):
            differing.append((FACT_NAMES[fact], "; ".join(words)))
    origins = [body_words(one.body, terms)[1] for one in said.origins]
    return VehicleSection(facts, differing, origins, [body_words(one.body, terms)[1] for one in said.restored])
