"""Every station brings its part of every room, or says in writing why it has none."""

import re
import unittest

from hakutsu.core.consequence import codes
from hakutsu.dossier.coverage import Check, checks
from hakutsu.dossier.folding import folded_kinds
from hakutsu.entries import Draft
from hakutsu.entries.registry import kinds
from hakutsu.reckoning.station import station_rules
from hakutsu.report.sections import report_sections
from hakutsu.web.station import Phase, shown_at, station_pages
from tests.builders import NOON
from tests.entries.test_entries import SAMPLES
from tests.web.case import RoundCase

# What a station of the rules has no page, section or coverage of its own for, and why.
NO_PAGE = {
    "general": "remarks are written at their place: the round shows them",
    "hazards": "stand-downs are a page by that name",
    "body": "its page is called outside",
}
NO_SECTION = {
    "general": "remarks and questions have sections of their own names",
    "runsheet": "how the day was planned is no business of the buyer",
    "body": "its section is called outside",
}
NO_COVERAGE = {
    "claims": "claimed by others: nothing to look at",
    "general": "the look at every place is the round's",
    "hazards": "raised when seen; nobody looks for one",
    "film": "counted by readings for each panel",
    "body": "counted as fit, and as glass and lamps",
    "corners": "counted as tyres, and as brakes",
    "runsheet": "its steps are done or left out, and no looks",
    "variant": "counted by its own page: features and weak points of what it is said to be",
    "service": "counted by its own page: whether papers of each kind were read",
    "papers": "counted by its own page: the number where identity rests on it, the build date, two records",
}
NO_CODES = {"runsheet": "a plan finds nothing"}


class Completeness(unittest.TestCase):
    def check(self, name, there, excused):
        for one in station_rules():
            with self.subTest(name, station=one.key):
                self.assertNotEqual(one.key in there, one.key in excused, f"{one.key}: {name}, or why not; not both")

    def test_every_station_has_a_page_a_section_codes_and_coverage_or_says_why_not(self):
        self.check("page", {one.key for one in station_pages()}, NO_PAGE)
        self.check("section", {one.key for one in report_sections()}, NO_SECTION)
        self.check("codes", {code.partition(".")[0] for code in codes()}, NO_CODES)
        self.check("coverage", {one.key for one in checks()}, NO_COVERAGE)

    def test_every_check_is_covered_by_a_page(self):
        covered = {key for page in station_pages() for key in page.covers}
        self.assertEqual(covered, {one.key for one in checks()})
        self.assertIn(Check("tyres", "Tyres"), checks())

    def test_every_kind_is_folded_or_only_kept(self):
        kept = {"general.strike", "film.imported", "body.event_dropped", "timer.looked"}
        unfolded = {kind for kind in kinds() if not kind.startswith("test.")} - folded_kinds()
        self.assertLessEqual(unfolded, kept)

    def test_every_page_names_its_phase_and_no_two_share_a_key(self):
        pages = station_pages()
        self.assertEqual(len({page.key for page in pages}), len(pages))
        self.assertEqual([page.phase for page in pages], sorted((p.phase for p in pages), key=list(Phase).index))


class Ways(RoundCase):
    def test_every_page_of_the_navigation_opens_under_its_phase(self):
        for page in station_pages():
            if not page.title:
                continue
            with self.subTest(page.key):
                answer = self.client.get(f"{self.here}/{page.key}")
                self.assertEqual(answer.status_code, 200)
                self.assertRegex(answer.text, rf'<nav aria-label="{page.phase}"')
                self.assertRegex(answer.text, r'aria-current="true">' + str(page.phase))

    def test_how_far_each_is_stands_beside_it(self):
        text = self.client.get(f"{self.here}/corners").text
        self.assertRegex(re.sub(r"\s+", " ", text), r"Corners <span[^>]*>0/\d+</span>")

    def test_every_kind_is_shown_somewhere_that_opens(self):
        lie = {"panel": "bonnet", "surface": "bonnet", "wheel": "wheel_front_left", "corner": "wheel_front_left"}
        noted = [kind for kind in kinds().values() if not kind.name.startswith(("test.", "picture."))]
        noted.sort(key=lambda kind: not kind.name.startswith("step."))  # before anything stands down
        drafts = []
        for kind in noted:
            body = kind.model.model_validate(SAMPLES[f"{kind.name}/{kind.version}"])
            drafts.append(Draft.write(kind.name, body, NOON, place=lie.get(kind.at, "front")))
        uploads = [one for one in drafts if kinds()[one.kind].by_upload]
        self.post(self.inspection, *(one for one in drafts if one not in uploads))
        self.client.app.state.desk.logbook.append(self.inspection, uploads, "Test")
        kept = {entry.id: entry for entry in self.dossier().entries}
        for draft in drafts:
            with self.subTest(draft.kind):
                address = shown_at(kept[draft.id], kept[draft.id].parsed())
                self.assertEqual(self.client.get(f"{self.here}/{address}").status_code, 200, address)
