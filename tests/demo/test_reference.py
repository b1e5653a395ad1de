"""Two whole inspections: what must come of them, and what nobody observed and may not be said."""

import re
import tempfile
import unittest

from hakutsu.core.life.components import components, fitted, scheduled_items
from hakutsu.demo.building import add_demo, demo_id
from hakutsu.demo.reference import REFERENCES, expected, reference_drafts
from hakutsu.dossier import gather_dossier
from hakutsu.reckoning import Reckoning
from hakutsu.report.making import report_html
from hakutsu.report.sections import Making
from hakutsu.web.corners.context import corner_parts
from tests.builders import NOON, logbook_in


def said(html):
    """The words of a document."""
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", html))


class Reference(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.directory = tempfile.TemporaryDirectory()
        cls.addClassCleanup(cls.directory.cleanup)
        cls.logbook = logbook_in(cls.directory.name)
        add_demo(cls.logbook)

    def reckoning(self, name):
        return Reckoning(gather_dossier(demo_id(name), self.logbook.entries(demo_id(name))))

    def each(self):
        for name in REFERENCES:
            reckoning = self.reckoning(name)
            yield name, expected(name), reckoning

    def test_they_are_whole_working_days(self):
        for name in REFERENCES:
            drafts = reference_drafts(name)
            self.assertTrue(80 <= len(drafts) <= 150, (name, len(drafts)))
            self.assertEqual([one.at for one in drafts], sorted(one.at for one in drafts))
            self.assertEqual(len(self.logbook.entries(demo_id(name))), len(drafts), "an entry was refused")

    def test_what_must_come_of_them(self):
        for name, wanted, reckoning in self.each():
            found = {(one.code, one.subject): one for one in reckoning.findings}
            for row in wanted.must:
                with self.subTest(name, code=row.code, subject=row.subject):
                    mine = [one for (code, at), one in found.items() if code == row.code and row.subject in ("", at)]
                    self.assertTrue(mine, row.why)
                    if row.consequence:
                        self.assertEqual({one.consequence.value for one in mine}, {row.consequence})
                    self.assertTrue(all(one.evidence for one in mine))

    def test_all_that_is_settled_and_all_that_is_lived_with_is_argued(self):
        for name, wanted, reckoning in self.each():
            for asked, rows in (("settle", wanted.settles), ("live_with", wanted.lives_with), ("walk_away", [])):
                mine = {(one.code, one.subject) for one in reckoning.findings if one.consequence.value == asked}
                for row in rows:
                    with self.subTest(name, code=row.code, subject=row.subject):
                        held = {(code, at) for code, at in mine if code == row.code and row.subject in ("", at)}
                        self.assertTrue(held, row.why)
                        mine -= held
                with self.subTest(name, asked=asked):
                    self.assertEqual(mine, set(), "asked for, and nobody argued it")

    def test_the_sheet_and_the_preparation_list(self):
        for name, wanted, reckoning in self.each():
            sheet = reckoning.lives.sheet
            mine = {line.item.key: line.amount is not None for line in sheet.lines if line.treat.value == "settle"}
            with self.subTest(name):
                self.assertEqual(mine, {(row.code, row.subject): row.priced for row in wanted.line})
                self.assertEqual(sheet.unpriced, sum(not row.priced for row in wanted.line))
                self.assertEqual(sheet.looks, 0, "neither a work van nor patina is settled for looks")
                self.assertEqual({one.job for one in reckoning.preparation}, set(wanted.preparation.jobs))

    def test_what_nobody_observed_is_not_said(self):
        for name, wanted, reckoning in self.each():
            report = said(report_html(Making(reckoning, NOON, "", str)))
            for row in wanted.must_not:
                with self.subTest(name, code=row.code, says=row.says):
                    if row.code:
                        told = [one.code for one in reckoning.findings if one.code.startswith(row.code)]
                        self.assertEqual(told, [], row.why)
                    if row.says:
                        self.assertNotIn(row.says, report, row.why)

    def test_only_what_it_has_is_asked_for(self):
        rows = {**components(), **scheduled_items()}
        for name, wanted, reckoning in self.each():
            dossier = reckoning.dossier
            tried = {one.key for one in dossier.functions.items(dossier.vehicle, dossier.mechanics)}
            has = {key for key, row in rows.items() if fitted(row, dossier.mechanics)}
            with self.subTest(name):
                self.assertLessEqual(set(wanted.functions.asked), tried)
                self.assertEqual(set(wanted.functions.not_asked) & tried, set())
                self.assertLessEqual(set(wanted.parts.asked), has)
                self.assertEqual(set(wanted.parts.not_asked) & {piece(one) for one in self.asked(reckoning)}, set())

    def asked(self, reckoning):
        """Parts with a life that are reckoned, and parts the corners list."""
        jobs = [one.key for one in reckoning.lives.jobs]
        wheels = ("wheel_front_left", "wheel_rear_right")
        return jobs + [row.key for wheel in wheels for row in corner_parts(reckoning, wheel)]


def piece(key):
    return key.partition(":")[0]


if __name__ == "__main__":
    unittest.main()
