"""An entry this version cannot read is shown as such in its logbook, and every page goes on without it."""

import json
import sqlite3
from pathlib import Path
from unittest.mock import patch

from hakutsu.entries.general import Seen
from tests.builders import opened, reading
from tests.web.addresses import AddressCase

LATER = {"kind": "scan.dreamt", "body": {"dream": 1}}


class UnreadableCase(AddressCase):
    def database(self, statement, *values):
        with sqlite3.connect(Path(self.directory.name) / "hakutsu.sqlite") as database:
            database.execute(statement, values)
        database.close()

    def spoil(self, seq, text=None, **changed):
        """Change what is stored of an entry, as another version or a fault of the disk would have."""
        where = (str(self.inspection), seq)
        (row,) = [row for row in self.logbook.rows(self.inspection) if row.seq == seq]
        stored = text if text is not None else json.dumps({**json.loads(row.draft), **changed})
        # Its hash is changed with it: a page must not tell by that alone, nor keep what it showed before.
        self.database(
            "UPDATE entry SET draft = ?, hash = ? WHERE inspection_id = ? AND seq = ?",
            stored,
            "f" * 63 + str(seq % 10),
            *where,
        )


class OneEntry(UnreadableCase):
    def setUp(self):
        super().setUp()
        self.write("general.seen", Seen(text="salt at the sill"), place="roof")  # 3
        self.post(self.inspection, reading("roof", 118), reading("bonnet", 121))  # 4, 5

    def shown(self, why, *, everywhere=True):
        if everywhere:
            self.answers(self.inspection)
        for page in ("film", "report", "round"):
            self.assertEqual(self.client.get(f"{self.here}/{page}").status_code, 200)
        text = self.client.get(f"{self.here}/logbook").text
        self.assertIn("This version cannot read it", text)
        self.assertIn(why, text)
        self.assertEqual(self.client.get("/").status_code, 200)
        self.assertEqual(len(self.dossier().unread), 1)
        self.assertEqual(len(self.dossier().entries), 4)

    def test_a_kind_this_version_does_not_know(self):
        self.spoil(3, **LATER)
        self.shown("scan.dreamt")

    def test_a_version_from_the_future(self):
        self.spoil(3, version=9)
        self.shown("version 9 of general.seen is not known here", everywhere=False)

    def test_a_number_that_was_stored_as_none(self):
        self.spoil(4, body={"value_um": None, "status": "ok"})
        self.shown("a reading needs its number", everywhere=False)

    def test_what_is_no_entry_at_all(self):
        for text in ("{", "[]", "null", '"x"', "{}", "[" * 3000):
            with self.subTest(text[:5]):
                self.spoil(3, text)
                why = "what is stored is no entry" if text != "{}" else "Field required"
                self.shown(why, everywhere=text == "{")

    def test_one_that_took_another_back_still_does(self):
        struck = self.dossier().entries[2].id
        self.spoil(5, **LATER, strikes=str(struck))
        self.assertIn(struck, self.dossier().struck)
        self.assertEqual(self.client.get(f"{self.here}/report").status_code, 200)

    def test_the_report_says_that_it_is_left_out(self):
        self.spoil(3, **LATER)
        self.assertIn(
            "1 cannot be read by this version and is left out here", self.client.get(f"{self.here}/report").text
        )

    def test_its_json_twin_leaves_it_out_and_the_export_has_it(self):
        self.spoil(3, **LATER)
        self.assertEqual(len(self.client.get(f"{self.here}/entries").json()), 4)
        self.assertEqual(self.client.get(f"{self.here}/logbook/export").status_code, 200)


class ManyInspections(UnreadableCase):
    def setUp(self):
        super().setUp()
        self.other = opened(self.logbook, name="Skarrow Fell")

    def test_one_whose_vehicle_cannot_be_read_is_said_and_has_its_logbook(self):
        self.spoil(1, **LATER)
        page = self.client.get("/").text
        self.assertIn("Skarrow Fell", page)
        self.assertIn("One inspection cannot be shown", page)
        self.assertIn(f"/inspections/{self.inspection}/logbook", page)
        logbook = self.client.get(f"{self.here}/logbook")
        self.assertEqual(logbook.status_code, 200)
        self.assertIn("This version cannot read it", logbook.text)
        self.assertEqual(self.client.get(f"{self.here}/film").status_code, 404)

    def test_one_whose_rules_fail_takes_no_other_with_it(self):
        def failing(reckoning, *more):
            if reckoning.dossier.inspection == self.inspection:
                raise ZeroDivisionError("a rule that failed")
            return real(reckoning, *more)

        from hakutsu.web import day, searching

        real = day.reckoned_summary
        with patch.object(day, "reckoned_summary", failing), self.assertLogs("hakutsu.web", "ERROR"):
            page = self.client.get("/")
        self.assertEqual(page.status_code, 200)
        self.assertIn("Skarrow Fell", page.text)
        self.assertIn("cannot be shown: ZeroDivisionError", page.text)
        words = searching.words_of

        def no_words(reckoning, where):
            if reckoning.dossier.inspection == self.inspection:
                raise KeyError("x")
            return words(reckoning, where)

        with patch.object(searching, "words_of", no_words), self.assertLogs("hakutsu.web", "ERROR"):
            found = self.client.get("/search?q=skarrow")
        self.assertIn("1 inspection with every word", found.text)

    def test_the_head_of_every_page_goes_on(self):
        self.client.post(f"{self.here}/timers/start", data={"label": "battery rests", "minutes": "30"})
        with patch("hakutsu.dossier.timers.Timers.running", property(lambda _: 1 / 0)), self.assertLogs("hakutsu.web"):
            self.assertEqual(self.client.get("/settings").status_code, 200)

    def test_a_logbook_that_does_not_hold_together_is_said_on_day_page_logbook_and_report(self):
        self.assertIn("All 2 entries are intact", self.client.get(f"{self.here}/logbook").text)
        self.assertIn("each of its 2 entries follows from the one before", self.client.get(f"{self.here}/report").text)
        self.database("UPDATE entry SET \"by\" = 'Eve' WHERE inspection_id = ? AND seq = 2", str(self.inspection))
        self.database("DELETE FROM checked")
        self.assertIn("does not hold together", self.client.get(f"{self.here}/logbook").text)
        day = self.client.get("/").text
        self.assertIn("logbook of Pellin Mote</a>", day)
        self.assertIn("entry 2: it does not follow", day)
        self.assertIn("does not hold together from entry 2 on", self.client.get(f"{self.here}/report").text)


class BackgroundWork(UnreadableCase):
    def test_what_ended_it_is_shown_on_its_page(self):
        desk = self.client.app.state.desk

        def failing():
            raise RuntimeError("it broke")

        for name, address in (("search words", "/search"), ("logbook check", f"{self.here}/logbook")):
            with self.assertLogs("hakutsu.background", "ERROR"):
                desk.background.start(name, failing).join()
            self.assertIn("RuntimeError: it broke", self.client.get(address).text)

    def test_the_chain_is_checked_when_the_server_starts(self):
        with self.client:
            desk = self.client.app.state.desk
            for _ in range(200):
                if desk.integrity.last(self.inspection):
                    break
                __import__("time").sleep(0.02)
        self.assertEqual(desk.integrity.last(self.inspection).seq, 2)
