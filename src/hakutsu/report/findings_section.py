"""Every finding by what it asks for: the one list that nothing found is missing from."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.vehicle.vocabulary import Consequence


@dataclass(frozen=True, slots=True)
class Group:
    """Findings that ask for the same."""

    name: str
    grave: bool
    lines: tuple[FoundLine, ...]

    @property
    def counted(self) -> str:
        """How many, for the headline."""
        said = "that may end the deal" if self.name == str(Consequence.WALK_AWAY) else f"to {self.name}"
        return f"{len(self.lines)} {said}"


def finding_groups(reckoning: Reckoning) -> list[Group]:
    """The gravest first; what is fine is left to its station."""
    groups = []
    for asked in Consequence:
        lines = [
            found_line(one, reckoning.terms, named=True) for one in reckoning.findings
            if one.consequence is asked and not one.excused
        ]  # fmt: skip
        if lines and asked is not Consequence.FINE:
            groups.append(Group(str(asked), asked in (Consequence.WALK_AWAY, Consequence.SETTLE), tuple(lines)))
    return groups


@report_section("findings", 2, "_findings.html")
def _findings(making: Making) -> list[Group]:
    """What was found, by what it asks for."""
    return finding_groups(making.reckoning)
