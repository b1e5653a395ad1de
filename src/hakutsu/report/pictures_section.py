"""Pictures as pages and report show them."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.dossier.pictures import KeptPicture
from hakutsu.entries.pictures import PictureKind
from hakutsu.figures.annotation import annotation_svg
from hakutsu.reckoning import Reckoning
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words

MOST_IN_REPORT = 24


@dataclass(frozen=True, slots=True)
class Shown:
    """A picture as the pages show it."""

    kept: KeptPicture
    place: str
    about: str
    overlay: Markup

    @property
    def still(self) -> bool:
        """True of a still, false of a clip or sound."""
        return self.kept.body.kind is PictureKind.STILL

    @property
    def caption(self) -> str:
        """Words, else what it was taken for, else where."""
        return self.kept.words or self.about or self.place or self.kept.body.name or "picture"


def shown(reckoning: Reckoning, kept: KeptPicture) -> Shown:
    """One picture."""
    about = ""
    if kept.body.of is not None:
        entry = reckoning.entries.get(kept.body.of)
        about = ": ".join(part for part in body_words(entry.parsed(), reckoning.terms) if part) if entry else ""
    overlay = Markup(annotation_svg(kept.marks, kept.body.width, kept.body.height)) if kept.marks else Markup("")
    return Shown(kept, reckoning.terms.place(kept.entry.place), about, overlay)


def report_pictures(reckoning: Reckoning) -> list[Shown]:
    """Stills the report shows: those with words or marks, or taken for an entry, up to MOST_IN_REPORT of them."""
    taken = reckoning.dossier.pictures.taken.values()
    chosen = [one for one in taken if one.body.kind is PictureKind.STILL and (one.words or one.marks or one.body.of)]
    return [shown(reckoning, one) for one in chosen[:MOST_IN_REPORT]]


@report_section("pictures", 150, "_pictures.html")
def _pictures(making: Making) -> list[tuple[Shown, str]]:
    """Each with where its copy is found."""
    return [(one, making.picture(one.kept.entry.id)) for one in report_pictures(making.reckoning)]
