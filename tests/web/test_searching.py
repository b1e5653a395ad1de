from html import unescape
from threading import Event
from time import sleep
from unittest.mock import patch
from uuid import uuid4

from hakutsu.entries.corners import Tyre
from hakutsu.entries.general import Seen, Strike
from hakutsu.entries.opening import Brief
from hakutsu.entries.settings import Settings
from hakutsu.logbook.derived import Kept
from hakutsu.report.searching import Words, words_of
from hakutsu.web.searching import GLANCED, QUIET, SHOWN, _Quiet, renew
from tests.builders import NOON, opened
from tests.web.case import RoundCase


class SearchPage(RoundCase):
    def found(self, asked):
        answer = self.client.get("/search", params={"q": asked})
        self.assertEqual(answer.status_code, 200)
        _, _, found = answer.text.partition('<ul class="mt-2 grid gap-3">')
        return unescape(found.partition("</main>")[0]).strip()

    def nothing(self, asked):
        self.assertIn("Nothing holds", self.client.get("/search", params={"q": asked}).text)

    def see(self, text, **envelope):
        return self.write("general.seen", Seen(text=text), **envelope)

    def test_what_is_written_after_a_search_is_found_by_the_next(self):
        self.nothing("barnacle")
        seen = self.see("barnacle on the tow bar", place="rear")
        self.assertIn("barnacle on the tow bar", self.found("barnacle"))
        self.write("general.strike", Strike(because="mud"), strikes=seen)
        self.nothing("barnacle")

    def test_a_logbook_that_has_not_changed_is_not_folded_again(self):
        self.see("barnacle", place="rear")
        other = opened(self.logbook)
        self.found("barnacle")
        with patch("hakutsu.web.searching.words_of", side_effect=AssertionError("folded again")):
            self.assertIn("barnacle", self.found("barnacle rear"))
        self.see("limpet", place="rear")
        with patch("hakutsu.web.searching.words_of", wraps=words_of) as made:
            self.assertIn("limpet", self.found("limpet"))
        self.assertEqual([call.args[0].dossier.inspection for call in made.call_args_list], [self.inspection])
        self.assertNotEqual(other, self.inspection)

    def test_words_are_made_when_the_server_starts_and_not_once_it_stops(self):
        self.see("barnacle", place="rear")
        with self.client:
            for _ in range(400):
                if self.logbook.derived.keys():
                    break
                sleep(0.05)
        self.assertEqual(list(self.logbook.derived.keys()), [self.inspection])
        with patch("hakutsu.web.searching.words_of", side_effect=AssertionError("folded again")):
            self.assertIn("barnacle", self.found("barnacle"))
        self.see("limpet", place="rear")
        before = self.logbook.derived.keys()
        stopped = Event()
        stopped.set()
        renew(self.client.app.state.desk, stopped)
        self.assertEqual(self.logbook.derived.keys(), before)

    def test_one_that_is_worked_on_is_left_in_peace_until_nothing_came_for_a_while(self):
        quiet, kept = _Quiet(), {self.inspection: "older"}
        new = uuid4()
        self.assertEqual(quiet.of({self.inspection: "1", new: "1"}, kept, 0.0), {new: "1"})
        self.assertEqual(quiet.of({self.inspection: "2"}, kept, QUIET - 1), {})
        self.assertEqual(quiet.of({self.inspection: "2"}, kept, QUIET + 1), {})
        self.assertEqual(quiet.of({self.inspection: "2"}, kept, 2 * QUIET), {self.inspection: "2"})
        self.assertEqual(quiet.of({self.inspection: "3"}, {self.inspection: GLANCED}, 0.0), {self.inspection: "3"})

    def test_of_many_the_newest_fifty_are_shown_and_all_are_counted(self):
        for number in range(SHOWN + 5):
            mine = opened(self.logbook)
            words = Words(inspection=mine, name=f"barnacle {number:03}", registration="", colour="", buyer="",
                          lines=())  # fmt: skip
            shown = words.model_dump(mode="json")
            self.logbook.derived.keep([Kept(mine, "older", words.text, shown, f"{number:03}")])
        with patch("hakutsu.web.searching.FEW", 1):
            text = self.client.get("/search?q=barnacle").text
        self.assertIn(str(SHOWN + 5), text)
        self.assertIn("barnacle 054", text)
        self.assertNotIn("barnacle 004", text)

    def test_it_is_found_in_the_words_and_units_it_is_shown_in(self):
        self.write("corner.tyre", Tyre(depth_mm=(4.0,)), place="wheel_front_left")
        self.see("creased", place="bonnet")
        self.assertIn("4 mm", self.found("4 mm"))
        self.assertIn("creased", self.found("bonnet creased"))
        self.client.app.state.desk.logbook.library.settings = Settings(names="american", depth="in32")
        self.assertIn("5/32 in", self.found("5/32"))
        self.assertIn("creased", self.found("hood creased"))
        self.assertNotIn("4 mm", self.found("tyre"))

    def test_an_inspection_without_a_vehicle_yet_is_left_out_and_found_later(self):
        self.logbook.open_inspection(uuid4(), NOON)
        self.nothing("barnacle")
        self.assertIn(self.here, self.found(self.dossier().vehicle.name))

    def test_vehicles_and_buyers_come_before_findings(self):
        self.see("heard of Una Wrack", place="rear")
        second = opened(self.logbook)
        self.inspection = second
        self.write("inspection.brief", Brief(buyer="Una Wrack"))
        text = self.found("wrack")
        self.assertLess(text.index(f"/inspections/{second}"), text.index(self.here))

    def test_signs_are_what_they_are(self):
        self.see("50 % of it_s 'worn' \"\\", place="rear")
        for asked in ("50 %", "it_s", "'worn'", '"', "\\"):
            self.assertIn("of it_s", self.found(asked))
        self.nothing("of%worn")
