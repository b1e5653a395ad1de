"""Fold of pictures with what is said and drawn beside them."""

from __future__ import annotations

from dataclasses import dataclass, field
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.pictures import Annotation, Described, Looks, Marked, Picture


@dataclass(slots=True)
class KeptPicture:
    """A picture that stands: its entry, what it is, and what was said and drawn beside it."""

    entry: Entry
    body: Picture
    tags: tuple[str, ...]
    looks: Looks = Looks.AS_SEEN
    words: str = ""
    marks: tuple[Annotation, ...] = ()


@dataclass(slots=True)
class Pictures:
    """All pictures by entry, in the order they came."""

    taken: dict[UUID, KeptPicture] = field(default_factory=dict)

    def of(self, entry: UUID) -> list[KeptPicture]:
        """Pictures taken for an entry."""
        return [one for one in self.taken.values() if one.body.of == entry]

    def at(self, place: str) -> list[KeptPicture]:
        """Pictures taken at a place, panel or part."""
        return [one for one in self.taken.values() if one.entry.place == place]


@fold("picture.taken")
def _taken(gathering: Gathering, entry: Entry, body: Picture) -> None:
    gathering.station(Pictures).taken[entry.id] = KeptPicture(entry, body, body.tags)


@fold("picture.described")
def _described(gathering: Gathering, entry: Entry, body: Described) -> None:
    kept = gathering.station(Pictures).taken.get(body.of)
    if kept is not None:
        kept.tags, kept.looks, kept.words = body.tags, body.looks, body.words


@fold("picture.annotated")
def _marked(gathering: Gathering, entry: Entry, body: Marked) -> None:
    kept = gathering.station(Pictures).taken.get(body.of)
    if kept is not None:
        kept.marks = body.marks
