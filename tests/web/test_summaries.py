"""Inspections summed up: what is kept beside the logbooks says what the logbooks say, and is never missed."""

import random
import sqlite3
import unittest
from datetime import UTC, datetime, timedelta
from pathlib import Path
from uuid import UUID, uuid4

from fastapi.testclient import TestClient

from hakutsu.demo.building import demo_drafts, demo_id
from hakutsu.entries import Draft
from hakutsu.entries.film import Shim, Verification, VerifiedWhen
from hakutsu.entries.general import Strike
from hakutsu.entries.opening import Stage, StageReached
from hakutsu.entries.timers import TimerStarted, TimerStopped
from hakutsu.logbook.derived import FILE
from hakutsu.logbook.ends import End
from hakutsu.web.app import create_app
from hakutsu.web.summaries import Summaries
from hakutsu.web.summary import Summary, glanced_summary, gone_on, reckoned_summary
from tests.builders import NOON, opened, reading
from tests.web.case import WebCase

CHECKS = (Shim(reference_um=0, shown_um=2), Shim(reference_um=250, shown_um=253))


def drawn(chance: random.Random, written: list[Draft]) -> Draft:
    """One more entry of those that change a summary, and of those that do not."""
    at = NOON + timedelta(minutes=len(written))
    running = [one.id for one in written if one.kind == "timer.started"]
    match chance.randrange(7):
        case 0:
            return Draft.write("general.strike", Strike(), at, strikes=chance.choice(written).id)
        case 1:
            return Draft.write("timer.started", TimerStarted(label="tight?", minutes=10), at)
        case 2 if running:
            return Draft.write("timer.stopped", TimerStopped(of=chance.choice(running)), at)
        case 3:
            body = Verification(gauge=chance.choice("AB"), when=chance.choice(list(VerifiedWhen)), checks=CHECKS)
            return Draft.write("film.verification", body, at)
        case 4:
            return Draft.write("inspection.stage", StageReached(stage=chance.choice(list(Stage))), at)
        case _:
            return reading("roof", 110 + chance.randrange(9), after=60 * len(written))


def another(case):
    """A client of a server that was just started."""
    return TestClient(create_app(case.logbook, Path(case.directory.name)), base_url="http://127.0.0.1")


class AtAGlance(unittest.TestCase):
    def test_going_on_says_what_the_whole_says(self):
        mine, taken = demo_id("estate"), 0
        for seed in range(40):
            chance = random.Random(seed)
            written = [one for one in demo_drafts("estate") if one.kind.startswith("inspection.")]
            at_hand = glanced_summary(mine, End(1, "a"), "", [one.model_dump_json() for one in written])
            for number in range(25):
                written.append(drawn(chance, written))
                end = End(number + 2, f"{number}")
                whole = glanced_summary(mine, end, "", [one.model_dump_json() for one in written])
                on = gone_on(at_hand, end, [written[-1].model_dump_json()])
                taken += on is not None
                if on is not None:
                    self.assertEqual(on, whole, (seed, number, written[-1].kind))
                at_hand = whole
        self.assertGreater(taken, 500)

    def test_what_cannot_be_read_is_passed_over(self):
        found = glanced_summary(UUID(int=1), End(2, "a"), "", ["{", "[]", '{"kind": "film.reading", "id": "x"}'])
        self.assertEqual((found.vehicle, found.readings), ("", 1))


class AtHand(WebCase):
    def summaries(self):
        """As another server would know them."""
        return Summaries(self.logbook)

    def rows(self):
        found, count = self.summaries().page(0, 50)
        self.assertEqual(len(found), count)
        return {one.inspection: one for one in found}

    def test_a_glance_agrees_with_the_reckoning(self):
        mine = opened(self.logbook)
        self.logbook.append(mine, demo_drafts("estate")[3:], "Ina")
        glanced = self.rows()[mine]
        reckoned = reckoned_summary(self.client.app.state.desk.reckoning(mine), glanced.end, glanced.opened_at, NOON)
        for name in ("vehicle", "detail", "buyer", "finished", "readings", "timers"):
            self.assertEqual(getattr(glanced, name), getattr(reckoned, name), name)
        self.assertEqual(
            {one: at[:19] for one, at in glanced.verified.items()},
            {one: at[:19] for one, at in reckoned.verified.items()},
        )

    def test_kept_and_read_again_and_gone_on_from(self):
        mine = opened(self.logbook)
        first = self.summaries()
        first.page(0, 50)
        first.store()
        [kept] = self.logbook.derived.summaries()
        self.assertEqual(Summary.read(kept).end, self.logbook.end(mine))
        self.logbook.append(mine, [reading("roof", 118)], "Ina")
        self.assertEqual(self.rows()[mine].readings, 1)

    def test_of_another_version_or_shape_it_is_made_anew(self):
        mine = opened(self.logbook)
        first = self.summaries()
        first.page(0, 50)
        first.store()
        file = Path(self.directory.name) / FILE
        for change in ("UPDATE summary SET made = '0.0.1'", "UPDATE summary SET said = '{\"knows\": 1}'"):
            with sqlite3.connect(file) as other:
                other.execute(change)
            self.assertEqual(self.rows()[mine].vehicle, "Pellin Mote", change)

    def test_damaged_or_gone_it_is_made_anew_and_nothing_is_lost(self):
        mine = opened(self.logbook)
        for damage in (b"", b"no database at all" * 400):
            self.logbook.derived.close()
            (Path(self.directory.name) / FILE).write_bytes(damage)
            self.assertEqual(self.rows()[mine].vehicle, "Pellin Mote")
            self.assertIn("Pellin Mote", another(self).get("/search?q=pellin").text)

    def test_written_by_another_hand_it_is_seen(self):
        opened(self.logbook)
        self.assertEqual(self.client.get("/").text.count('aria-label="Report of'), 1)
        copy = str(uuid4())
        with sqlite3.connect(self.logbook.database) as other:
            other.execute("INSERT INTO inspection (id, opened_at) SELECT ?, opened_at FROM inspection LIMIT 1", (copy,))
            columns = 'seq, id, "by", draft, hash, hash_version'
            other.execute(f"INSERT INTO entry (inspection_id, {columns}) SELECT ?, {columns} FROM entry", (copy,))
        self.assertIn(copy, self.client.get("/").text)

    def test_one_that_is_gone_is_forgotten(self):
        mine, other = opened(self.logbook), opened(self.logbook)
        summaries = self.summaries()
        self.assertEqual(summaries.page(0, 50)[1], 2)
        with sqlite3.connect(self.logbook.database) as hand:
            hand.execute("DELETE FROM entry WHERE inspection_id = ?", (str(other),))
            hand.execute("DELETE FROM inspection WHERE id = ?", (str(other),))
        found, count = summaries.page(0, 50)
        self.assertEqual(([one.inspection for one in found], count), ([mine], 1))


class Day(WebCase):
    def test_a_list_to_work_by_filtered_and_archived(self):
        mine = [opened(self.logbook, name=name) for name in ("Pellin Mote", "Skarrow Fell", "Tarrow Sund")]
        self.logbook.append(mine[1], [Draft.write("inspection.stage", StageReached(stage="finished"), NOON)], "Ina")

        def shown(**asked):
            text = self.client.get("/", params=asked).text
            return [name for name in ("Pellin Mote", "Skarrow Fell", "Tarrow Sund") if name in text]

        self.assertEqual(len(shown()), 3)
        self.assertEqual(shown(show="done"), ["Skarrow Fell"])
        self.assertEqual(shown(show="open", q="tarrow"), ["Tarrow Sund"])
        self.assertIn("No inspection holds that", self.client.get("/", params={"q": "nobody"}).text)
        text = self.client.get("/").text
        self.assertLess(text.index(">Open<"), text.index(">Done<"))
        self.assertIn("Next: Key facts", text)
        refused = self.client.post(f"/inspections/{mine[0]}/stage", data={"stage": "archived"})
        self.assertEqual(refused.status_code, 409)
        self.client.post(f"/inspections/{mine[1]}/stage", data={"stage": "archived"})
        self.assertEqual(shown(), ["Pellin Mote", "Tarrow Sund"])
        self.assertEqual(shown(show="archived"), ["Skarrow Fell"])
        self.client.post(f"/inspections/{mine[1]}/stage", data={"stage": "finished", "back": "archived"})
        self.assertEqual(len(shown()), 3)

    def test_what_was_worked_on_today_stands_first(self):
        old = opened(self.logbook, name="Pellin Mote")
        opened(self.logbook, name="Tarrow Sund")
        at = datetime.now(UTC)
        self.logbook.append(old, [reading("roof", 118).model_copy(update={"at": at})], "Ina")
        text = self.client.get("/").text
        self.assertLess(text.index(">Today<"), text.index("Pellin Mote"))
        self.assertLess(text.index("Pellin Mote"), text.index(">Open<"))
        self.assertLess(text.index(">Open<"), text.index("Tarrow Sund"))

    def test_fifty_at_a_time_newest_first_finished_ones_last(self):
        every = []
        for number in range(62):
            mine = uuid4()
            self.logbook.open_inspection(mine, NOON + timedelta(days=number))
            vehicle, *_ = demo_drafts("hatch")
            self.logbook.append(mine, [vehicle.model_copy(update={"id": uuid4()})], "Ina")
            every.append(mine)
        done = Draft.write("inspection.stage", StageReached(stage=Stage.FINISHED), NOON)
        self.logbook.append(every[-1], [done], "Ina")
        wanted = [*reversed(every[:-1]), every[-1]]
        client = another(self)
        shown = [client.get(path).text for path in ("/", "/?start=51")]
        for text, mine in zip(shown, (wanted[:50], wanted[50:]), strict=True):
            places = [text.find(f'href="/inspections/{one}"') for one in mine]
            self.assertEqual(places, sorted(places))
            self.assertNotIn(-1, places)
        self.assertIn("1 to 50 of 62", shown[0])
        self.assertIn('href="?start=1"', shown[1])
        self.assertIn("1 to 50 of 62", client.get("/?start=1000").text)
        self.assertEqual(client.get("/?start=-1").status_code, 422)
