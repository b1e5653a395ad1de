"""The film survey drawn and told in one sentence, for the report and the film station alike."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.film import PanelFilm, State
from hakutsu.dossier import Covered, PanelCoverage
from hakutsu.figures.film_profile import ProfilePanel, film_profile
from hakutsu.figures.shell_sheet import SheetPanel, shell_sheet
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import sheet_marks
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.shell import shell
from hakutsu.vehicle.units import show

NOT_READ = "not read"


@dataclass(frozen=True, slots=True)
class PanelRow:
    """One panel as the film station shows it."""

    key: str
    code: str
    name: str
    coverage: PanelCoverage
    film: PanelFilm | None
    retests: int

    @property
    def count(self) -> str:
        """Readings taken against expected; a dash where none is wanted and none was taken."""
        if not self.coverage.expected and not self.coverage.taken:
            return "–"
        return f"{self.coverage.taken}/{self.coverage.expected}" if self.coverage.expected else f"{self.coverage.taken}"

    @property
    def where(self) -> str:
        """The spot pattern in words."""
        panel = panels()[self.key]
        if panel.size == "small":
            return "In the middle, then towards both ends"
        return "At the centre and the quarters" + (", and once near the low edge" if panel.plane == "flank" else "")

    @property
    def state(self) -> State | None:
        """The likeliest state, none where nothing says anything of this panel."""
        return self.film.state if self.film and self.film.words != NOT_READ and not self.film.not_measurable else None

    @property
    def words(self) -> str:
        """The state in words."""
        return self.film.words if self.film else NOT_READ

    @property
    def is_open(self) -> bool:
        """True while the protocol wants more here."""
        return self.coverage.state is Covered.OPEN


def panel_rows(reckoning: Reckoning) -> list[PanelRow]:
    """All fitted panels in walk order."""
    analysis = reckoning.film.analysis
    wanted = [surprise.observation.panel for surprise in analysis.open_surprises]
    return [
        PanelRow(c.panel, panels()[c.panel].code, reckoning.terms.panel(c.panel), c, analysis.panel(c.panel),
                 wanted.count(c.panel))
        for c in reckoning.dossier.film_coverage()
    ]  # fmt: skip


def profile_panels(reckoning: Reckoning, rows: list[PanelRow], *, linked: bool) -> list[ProfilePanel]:
    """The panels of the film profile; with `linked` each leads to itself on the film station."""
    found = []
    for row in rows:
        read = reckoning.film.observations_on(row.key)
        if not read and not row.coverage.expected:
            continue
        href = f"?panel={row.key}" if linked else None
        found.append(ProfilePanel(row.key, row.code, row.name, row.state, row.words, read, row.coverage.because, href))
    return found


def sheet_panels(reckoning: Reckoning, rows: list[PanelRow], *, linked: bool) -> list[SheetPanel]:
    """The panels of the shell sheet."""
    return [
        SheetPanel(
            row.key, row.code, row.name, row.state, row.words, reckoning.film.observations_on(row.key),
            row.film.filled_share if row.film else None, row.film.filler_map if row.film else None,
            f"?panel={row.key}" if linked else None,
        )
        for row in rows
    ]  # fmt: skip


def sheet_svg(
    reckoning: Reckoning,
    shown: list[SheetPanel],
    current: str | None = None,
    *,
    advised: bool = True,
    upright: bool = False,
) -> Markup:
    """The shell sheet as markup, with the spot to read next where that is advised; `upright` for a narrow screen."""
    vehicle, base, terms = reckoning.dossier.vehicle, reckoning.film.analysis.baseline, reckoning.terms
    patches = shell(vehicle.body_style, vehicle.doors, tuple(vehicle.panel_keys()))
    return Markup(
        shell_sheet(
            shown, patches, reckoning.terms.film, baseline_um=base.median if base else None,
            current=current, spot=reckoning.film.next_spot if advised else None,
            marks=sheet_marks(reckoning), sides=(terms.side("left"), terms.side("right")),
            upright=upright,
        )
    )  # fmt: skip


def profile_svg(reckoning: Reckoning, shown: list[ProfilePanel], current: str | None = None) -> Markup:
    """The film profile as markup."""
    return Markup(film_profile(shown, reckoning.film.analysis.baseline, reckoning.terms.film, current=current))


def baseline_words(reckoning: Reckoning) -> str:
    """The car's baseline in one sentence."""
    base, unit = reckoning.film.analysis.baseline, reckoning.terms.film
    if base is None and reckoning.dossier.film.without_gauge:
        return "No gauge here: panels are judged by magnet, eye and hand."
    if base is None:
        return "No baseline yet: read at least two panels."
    kind = "this car’s own film" if base.kind == "factory" else "a respray of the whole car"
    interval = f"{show(base.low, unit, with_unit=False)} to {show(base.high, unit)}"
    corrected = " Readings are drawn as corrected by the verification." if any(reckoning.film.gauge_fits) else ""
    return f"Baseline {show(base.median, unit)} ({interval}, 80 % interval): {kind}.{corrected}"
