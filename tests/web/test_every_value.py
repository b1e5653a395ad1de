"""Whatever a form can send, at every place it can lie, leaves every page standing."""

from enum import Enum
from uuid import uuid4

from hakutsu.entries import Draft, EntryError, kinds
from hakutsu.entries.registry import anywhere, belongs
from tests.builders import NOON, opened
from tests.entries.test_entries import SAMPLES
from tests.web.addresses import AddressCase

# Kinds that add up at a place: each of their values stands in one inspection; of the others the last one counts.
ADDING_UP = (
    "body.blemish", "body.rust", "body.glass", "body.trim", "body.addition", "leak.seen", "general.seen", "claim.said",
)  # fmt: skip
PLACES_A_ROUND = 6
PLACE_PAGES = 4  # a place's page is opened in every fourth round: all of them look alike to an entry elsewhere


def choices(annotation):
    """Values of an enum field, also where it is optional or one of several."""
    if isinstance(annotation, type) and issubclass(annotation, Enum):
        return list(annotation)
    if annotation is bool:
        return [True, False]
    return [one for arg in getattr(annotation, "__args__", ()) for one in choices(arg)]


def variants(kind):
    """Bodies of a kind in which every value of every enum field stands somewhere, each as the form would send it."""
    sample = SAMPLES[f"{kind.name}/{kind.version}"]
    fields = {name: choices(info.annotation) for name, info in kind.model.model_fields.items()}
    fields = {name: values for name, values in fields.items() if values}
    several = {name for name in fields if str(kind.model.model_fields[name].annotation).startswith("tuple")}
    rounds = max([1, *(-(-len(values) // (2 if name in several else 1)) for name, values in fields.items())])
    for i in range(rounds):
        body = dict(sample)
        for name, values in fields.items():
            plain = [value.value if isinstance(value, Enum) else value for value in values]
            pair = list(dict.fromkeys((plain[i % len(plain)], plain[(i + rounds) % len(plain)])))
            body[name] = pair if name in several else plain[i % len(plain)]
        yield body


def offered(kind):
    """Places an entry of a kind may lie at; none at all where it need not lie anywhere."""
    places = [key for key in sorted(anywhere()) if belongs(kind.name, key)]
    return places if kind.at is not None else [None, *places]


def outside_and_below(kind):
    """Places that forms offer for what is seen: not those that stand for a look or a try."""
    return [key for key in offered(kind) if key is None or not key.startswith(("function_", "engine_", "cabin_"))]


def holds(draft):
    try:
        draft.check()
    except EntryError:
        return False
    return True


class ValueCase(AddressCase):
    def sent(self, drafts):
        """Store them; refusals are fine (a value may not go with the rest of a sample), failures are not."""
        drafts = [draft for draft in drafts if holds(draft)]
        for start in range(0, len(drafts), 1000):
            answer = self.post(self.inspection, *drafts[start : start + 1000])
            self.assertEqual(answer.status_code, 200)
            self.assertEqual(answer.json()["refused"], [])
        return len(drafts)

    def draft(self, kind, body, place):
        return Draft(id=uuid4(), at=NOON, kind=kind.name, version=kind.version, body=body, place=place)


class WhatAddsUp(ValueCase):
    """Half of the kinds whose entries add up; the other half is a group of its own, so that two workers share them."""

    mine, least = ADDING_UP[::2], 4000

    def test_every_value_of_it_at_every_place(self):
        drafts = []
        for name in self.mine:
            kind = kinds()[name]
            drafts += [self.draft(kind, body, place) for body in variants(kind) for place in outside_and_below(kind)]
        self.assertGreater(self.sent(drafts), self.least)
        self.answers(self.inspection)


class WhatAddsUpToo(WhatAddsUp):
    mine, least = ADDING_UP[1::2], 4000


class EveryKind(ValueCase):
    def test_every_value_of_every_kind_in_turn(self):
        mine = [kind for kind in kinds().values() if not (kind.by_upload or kind.name.startswith("test."))]
        rounds = max(len(list(variants(kind))) for kind in mine if kind.name not in ADDING_UP)
        for turn in range(rounds):
            self.begin_another()
            drafts = []
            for kind in mine:
                bodies, places = list(variants(kind)), offered(kind)
                for i in range(min(PLACES_A_ROUND, len(places))):
                    place = places[(turn * PLACES_A_ROUND + i) % len(places)]
                    drafts.append(self.draft(kind, bodies[turn % len(bodies)], place))
            # The vehicle and the brief come last, so that every page has them as the sample says.
            drafts.sort(key=lambda draft: draft.kind in ("inspection.vehicle", "inspection.stage"))
            with self.subTest(turn=turn):
                self.assertGreater(self.sent(drafts), 150)
                self.answers(self.inspection, only=lambda i, key, turn=turn: i % PLACE_PAGES == turn % PLACE_PAGES)

    def begin_another(self):
        self.inspection = opened(self.logbook)
        self.here = f"/inspections/{self.inspection}"
