import re

from hakutsu.entries.body import Fit, Glass
from hakutsu.entries.day import Arrival, DayConditions, Dirt
from hakutsu.entries.general import AskSeller, ForDesk, Hint, Intervention, Limit, NotFitted, NothingFound, Seen
from hakutsu.entries.hazards import HazardRaised, StepDone
from hakutsu.entries.opening import Vehicle
from hakutsu.entries.settings import Overrides
from tests.builders import NOON, car, reading
from tests.web.case import RoundCase


class FollowUps(RoundCase):
    def text(self, room):
        return self.client.get(f"{self.here}/{room}").text

    def again(self, of, **more):
        data = {"of": str(of), "outcome": "gone", "back": "place/bay"} | more
        return self.client.post(f"{self.here}/again", data=data, follow_redirects=False)

    def answer(self, of, act, rule="door"):
        data = {"of": str(of), "rule": rule, "act": act, "back": "round"}
        return self.client.post(f"{self.here}/proposals", data=data, follow_redirects=False)

    def test_a_second_look_is_due_at_its_place_and_on_the_round_until_it_is_taken(self):
        leak = self.write("general.seen", Seen(text="damp below the pump"), place="bay")
        self.assertIn("Later, after running", self.text("place/bay"))
        self.assertNotIn("Look again:", self.text("place/front"))
        self.write("step.done", StepDone(step="warm_up"))
        self.assertIn("Due now", self.text("round"))
        self.assertEqual(self.again(leak, text="dry").headers["location"], f"{self.here}/place/bay")
        self.assertNotIn("Look again:", self.text("round"))
        self.assertIn("damp below the pump; looked again: gone, dry", self.text("report"))

    def test_what_is_no_second_look_is_refused_and_strange_ways_back_lead_to_the_round(self):
        leak = self.write("general.seen", Seen(text="a drip"), place="bay")
        self.assertEqual(self.again("8a1b6a4e-0000-4000-8000-000000000000").status_code, 404)
        self.assertEqual(self.again(leak, outcome="fine").status_code, 422)
        self.assertEqual(self.again(leak, text="x" * 401).status_code, 422)
        for back in ("//elsewhere.invalid", "../x", "round?x=1"):
            answer = self.again(leak, back=back)
            self.assertEqual(answer.headers["location"].split("/inspections/")[0], "")
        self.assertTrue(self.again(leak, back="https:elsewhere").headers["location"].endswith("/round"))

    def test_a_limit_is_proposed_and_taken_or_dropped_once(self):
        jammed = self.write("general.seen", Seen(text="rear left door jammed"), place="flank_left")
        self.assertIn("mirror and lamp from the next opening", self.text("place/flank_left"))
        self.assertEqual(self.answer(jammed, "take").status_code, 303)
        self.answer(jammed, "drop")  # in a second window: the first answer stays
        kinds = [entry.kind for entry in self.dossier().entries]
        self.assertEqual((kinds.count("general.limit"), kinds.count("general.proposal_dropped")), (1, 0))
        said = self.text("report")
        self.assertIn("because: rear left door jammed", said)
        self.assertIn("Instead: mirror and lamp", said)
        flat = self.write("general.seen", Seen(text="battery flat"), place="bay")
        self.answer(flat, "drop", rule="no_start")
        self.assertNotIn("limits what can be judged", self.text("round"))

    def test_before_finishing_both_are_asked_about(self):
        self.client.post(f"{self.here}/gaps", data={"gap": "all", "because": "no time"})
        self.write("general.intervention", Intervention(done="lifted the carpet", put_back=False), place="boot")
        answer = self.client.post(f"{self.here}/stage", data={"stage": "finished"}, follow_redirects=False)
        self.assertIn("gaps?finishing", answer.headers["location"])
        text = self.text("gaps?finishing=yes")
        self.assertIn("Look again: 1", text)
        self.assertIn("Finish with these gaps open", text)
        self.assertIn("not put back; a second look was wanted (before leaving) and was not taken", self.text("report"))


class Rail(RoundCase):
    def items(self):
        text = self.client.get(f"{self.here}/logbook").text
        part = text.split('data-fragment="rail">')[1].split("</p>")[0]
        return re.findall(r">([^<]+)</a>", part)

    def test_a_fresh_inspection_shows_only_coverage(self):
        self.assertEqual(self.items(), ["Places 0/17", "Film 0/17"])

    def test_in_the_middle_it_shows_everything_that_waits(self):
        self.write("general.hint", Hint(seen="new clamp, old hose"), place="bay")
        self.write("general.ask_seller", AskSeller(question="who fitted it?"), place="bay")
        self.write("general.for_desk", ForDesk(question="made so?", picture="0113"), place="bay")
        self.write("general.seen", Seen(text="door jammed"), place="flank_left")
        self.write("general.seen", Seen(text="a drip"), place="under_front")
        self.write("hazard.raised", HazardRaised(cause="fuel_wet"))
        self.post(self.inspection, *(reading("roof", um) for um in (118, 121, 119, 540)))
        self.assertEqual(
            self.items(),
            ["1 stand-down", "1 reading to repeat", "1 limit proposed", "Places 4/17", "Film 1/17",
             "1 second look later", "1 hint", "1 to ask", "1 for the desk"],
        )  # fmt: skip
        self.assertIn("made so? (picture 0113)", self.client.get(f"{self.here}/place/desk").text)

    def test_when_all_is_done_or_said_nothing_but_coverage_is_left(self):
        self.client.post(f"{self.here}/gaps", data={"gap": "all", "because": "no time"})
        self.assertEqual(self.items(), ["Places 17/17", "Film 17/17"])


class ByStation(RoundCase):
    def stations(self):
        return [(one.station, one.expected, one.done, one.limited, one.not_fitted, one.open)
                for one in self.dossier().station_coverage()]  # fmt: skip

    def test_numbers_by_hand(self):
        corners = [
            ("Tyres", 4, 0, 0, 0, 4),
            ("Brakes", 4, 0, 0, 0, 4),
            ("Engine", 7, 0, 0, 0, 7),
            ("Functions", 58, 0, 0, 0, 58),
            ("Underside", 23, 0, 0, 0, 23),
            ("Cabin", 17, 0, 0, 0, 17),
            ("Scan", 1, 0, 0, 0, 1),
            ("Road", 1, 0, 0, 0, 1),
        ]
        untouched = [("Fit", 6, 0, 0, 0, 6), ("Glass and lamps", 15, 0, 0, 0, 15), *corners]
        self.assertEqual(self.stations(), [("Looked over", 17, 0, 0, 0, 17), ("Film", 17, 0, 0, 0, 17), *untouched])
        self.write("general.nothing_found", NothingFound(station="general"), place="front")
        self.write("general.limit", Limit(station="general", because="locked"), place="boot")
        self.write("general.not_fitted", NotFitted(what="spare wheel"), place="under_rear")
        self.write("general.limit", Limit(station="film", because="wrapped"), place="roof")
        self.post(self.inspection, *(reading("bonnet", um) for um in (118, 121, 119)), reading("sill_left", 120))
        self.write("body.fit", Fit(front_mm=4), place="bonnet")
        self.write("general.nothing_found", NothingFound(station="general"), place="front_door_left")
        self.write("body.glass", Glass(fault="none"), place="windscreen")
        self.write("general.limit", Limit(station="general", because="taped over"), place="headlamp_left")
        self.assertEqual(
            self.stations(),
            [("Looked over", 17, 3, 1, 1, 13), ("Film", 17, 1, 1, 0, 15), ("Fit", 6, 2, 0, 0, 4),
             ("Glass and lamps", 15, 1, 1, 0, 13), *corners],
        )  # fmt: skip

    def test_together_they_expect_what_the_places_expect(self):
        total = sum(one.expected for one in self.dossier().place_coverage())
        self.assertEqual(sum(one.expected for one in self.dossier().station_coverage()), total)

    def test_a_panel_this_vehicle_lacks_is_not_fitted(self):
        self.write("inspection.vehicle", Vehicle(vehicle=car(not_fitted=("tailgate",))))
        self.assertEqual(self.stations()[1], ("Film", 16, 0, 0, 1, 16))
        self.assertIn("By station", self.client.get(f"{self.here}/round").text)


class WhatCouldNotBeChecked(RoundCase):
    def report(self):
        return self.client.get(f"{self.here}/report").text

    def test_places_not_fitted_and_parts_without_a_lift(self):
        self.write("general.limit", Limit(station="general", because="locked"), place="boot")
        self.write("general.not_fitted", NotFitted(what="spare wheel"), place="boot")
        self.write("general.limit", Limit(station="general", because="no light"), place="roof")
        self.write("day.conditions", DayConditions(begins=NOON, lift=False))
        said = self.report()
        self.assertIn("not looked at: no light", said)
        self.assertNotIn("not looked at: locked", said)  # something was noted there after all
        self.assertIn("Not fitted: spare wheel", said)
        self.assertIn("not observed, there was no lift: brake pipes, brake hoses, springs", said)
        self.write("day.conditions", DayConditions(begins=NOON, lift=True))
        self.assertNotIn("not observed", self.report())

    def test_marks_on_a_dirty_or_wet_panel_are_at_least(self):
        self.write("general.seen", Seen(text="chips along its edge", low=12, high=15, unit="chips"), place="bonnet")
        self.assertNotIn("at least (", self.report())
        for dirt in (Dirt.DIRTY, Dirt.WET):
            self.write("day.arrival", Arrival(dirt={"front": dirt}))
            self.assertIn(f"at least (it was {dirt}): chips along its edge (12 to 15 chips)", self.report())
            self.assertIn(f"at least, it was {dirt}", self.client.get(f"{self.here}/place/front").text)
        self.write("day.arrival", Arrival(dirt={"front": Dirt.DUSTY}))
        self.assertNotIn("at least (", self.report())

    def test_the_rule_set_gone_by_is_named(self):
        self.write("inspection.settings", Overrides(rules="orrin"))
        self.assertIn("Rules used: Orrin Isles", self.report())
        self.client.post(f"{self.here}/settings", data={"rules": "general_right", "depth": "in32"})
        self.assertRegex(self.report(), r"driving on the right, as of 2024 \(least tread 2/32 in\)")
