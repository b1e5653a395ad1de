"""Fold of the variant."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.variant import FeatureSeen, VariantTaken, WeakSeen


@dataclass(slots=True)
class VariantDossier:
    """The variant said last, its features and weak points as found, by key."""

    taken: Seen[VariantTaken] | None = None
    features: dict[str, Seen[FeatureSeen]] = field(default_factory=dict)
    weak: dict[str, Seen[WeakSeen]] = field(default_factory=dict)


@fold("variant.taken")
def _taken(gathering: Gathering, entry: Entry, body: VariantTaken) -> None:
    gathering.station(VariantDossier).taken = Seen(entry, body)


@fold("variant.feature")
def _feature(gathering: Gathering, entry: Entry, body: FeatureSeen) -> None:
    gathering.station(VariantDossier).features[body.feature] = Seen(entry, body)


@fold("variant.weak")
def _weak(gathering: Gathering, entry: Entry, body: WeakSeen) -> None:
    gathering.station(VariantDossier).weak[body.weak] = Seen(entry, body)
