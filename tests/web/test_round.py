from datetime import timedelta
from uuid import UUID

from icalendar import Calendar

from hakutsu.entries import Draft
from hakutsu.entries.body import Glass
from hakutsu.entries.general import Hint, Limit, NothingFound, Seen, Settled, Station
from hakutsu.entries.hazards import StepBegun
from hakutsu.web.round.gaps import gaps
from tests.builders import NOON, reading
from tests.web.case import RoundCase


class Places(RoundCase):
    def test_coverage_of_a_place_by_hand(self):
        # front corner, left: the look, film of wing and A-pillar, headlamp and side indicator, tyre and brake
        self.assertEqual((self.place("front_corner_left").expected, self.place("front_corner_left").open), (7, 7))
        self.post(self.inspection, *(reading("front_wing_left", 118, after=i) for i in range(3)))
        # a reading taken there says that somebody stood there and looked
        self.assertEqual((self.place("front_corner_left").done, self.place("front_corner_left").open), (2, 5))
        self.write(
            "general.nothing_found", NothingFound(station=Station.GENERAL), place="front_corner_left", how="close"
        )
        self.write("general.limit", Limit(station=Station.FILM, because="wet"), place="a_pillar_left")
        one = self.place("front_corner_left")
        self.assertEqual((one.done, one.limited, one.open), (2, 1, 4))
        self.write("body.glass", Glass(), place="headlamp_left")  # a form nobody touched is no look
        self.assertEqual(self.place("front_corner_left").open, 4)
        self.write("body.glass", Glass(fault="none"), place="headlamp_left")
        self.assertEqual(self.place("front_corner_left").open, 3)

    def test_a_find_takes_the_earlier_nothing_away_and_both_stay_readable(self):
        self.write("general.nothing_found", NothingFound(station=Station.GENERAL), place="rear", how="arm's length")
        self.assertIn("rear", self.dossier().general.nothing)
        self.write("general.seen", Seen(text="stone chips"), place="rear")
        self.assertNotIn("rear", self.dossier().general.nothing)
        text = self.client.get(f"{self.here}/place/rear").text
        self.assertIn("Looked, nothing found", text)
        self.assertIn("stone chips", text)

    def test_a_limit_is_no_look_but_no_gap_either(self):
        self.write("general.limit", Limit(station=Station.GENERAL, because="locked"), place="boot")
        self.assertEqual(
            (self.place("boot").done, self.place("boot").limited, self.place("boot").open), (0, 1, 3)
        )  # its lid is to be tried, its floor graded
        self.assertIn("not looked at: locked", self.client.get(f"{self.here}/round").text)

    def test_a_hint_stays_open_until_something_settles_it(self):
        hint = self.write("general.hint", Hint(seen="jump pack under a seat"), place="inside_front")
        self.assertIn("jump pack", self.client.get(f"{self.here}/round").text)
        self.write("general.settled", Settled(of=hint, answer="battery tested: sound"))
        self.assertNotIn("Hints: 1 open", self.client.get(f"{self.here}/round").text)

    def test_the_walk_follows_its_setting(self):
        self.client.post(f"{self.here}/round/walk", data={"start": "rear", "direction": "right_first"})
        self.assertEqual(self.dossier().day.places()[:2], ["rear", "rear_corner_left"])
        answer = self.client.post(f"{self.here}/round/walk", data={"start": "moon", "direction": "x"})
        self.assertEqual(answer.status_code, 422)

    def test_a_range_with_its_ends_the_wrong_way_round_is_refused(self):
        for body in ({"text": "tread", "low": 60, "high": 50}, {"text": "tread", "low": 60}):
            draft = Draft(id=UUID(int=len(body)), at=NOON, kind="general.seen", body=body, place="rear")
            (refused,) = self.post(self.inspection, draft).json()["refused"]
            self.assertIn("range", refused["message"])

    def test_no_such_place_is_a_helpful_page(self):
        self.assertEqual(self.client.get(f"{self.here}/place/moon").status_code, 404)


class StandDowns(RoundCase):
    def raise_one(self, cause="fuel_wet"):
        self.client.post(f"{self.here}/standdowns", data={"act": "hazard.raised", "cause": cause, "note": "filter"})
        return str(next(iter(self.dossier().hazards.raised)))

    def test_a_blocked_step_is_refused_on_the_page_and_by_the_server_with_the_caution(self):
        self.raise_one()
        answer = self.client.post(f"{self.here}/steps/cold_start/begin")
        self.assertEqual(answer.status_code, 409)
        self.assertIn("Air it, keep clear", answer.text)
        draft = Draft.write("step.begun", StepBegun(step="cold_start"), NOON)
        (refused,) = self.post(self.inspection, draft, reading("roof", 118)).json()["refused"]
        self.assertIn("a stand-down forbids it", refused["message"])
        self.assertEqual(len(self.film_readings(self.inspection)), 1)

    def test_it_stands_on_every_page_of_the_round_until_cleared(self):
        raised = self.raise_one()
        for name in ("round", "runsheet", "place/front"):
            self.assertIn("Stand-down: fuel wet", self.client.get(f"{self.here}/{name}").text)
        data = {"act": "hazard.cleared", "of": raised, "name": "R. Ness", "trade": "mechanic", "done": "hose"}
        self.client.post(f"{self.here}/standdowns", data=data)
        self.assertNotIn("Stand-down: fuel wet", self.client.get(f"{self.here}/round").text)
        self.assertIn("cleared by R. Ness", self.client.get(f"{self.here}/standdowns").text)
        self.assertEqual(
            self.client.post(f"{self.here}/steps/cold_start/begin", follow_redirects=False).status_code, 303
        )

    def test_an_override_without_a_name_or_reason_is_refused(self):
        raised = self.raise_one()
        data = {"act": "hazard.overridden", "of": raised, "name": " ", "reason": "", "activity": "running"}
        self.assertEqual(self.client.post(f"{self.here}/standdowns", data=data).status_code, 422)
        self.assertTrue(self.client.app.state.desk.reckoning(self.inspection).blocking("running"))

    def test_what_was_done_all_the_same_is_kept_and_marked(self):
        self.raise_one()
        self.client.post(f"{self.here}/steps/cold_start/done")
        self.assertIn("made during a stand-down", self.client.get(f"{self.here}/runsheet").text)


class RunSheet(RoundCase):
    def conditions(self, **more):
        data = {"begins": "", "available": "120", "engine_cold": "yes", "may_drive": "yes", **more}
        return self.client.post(f"{self.here}/runsheet/conditions", data=data, follow_redirects=False)

    def test_it_asks_for_conditions_first_and_then_plans(self):
        self.assertIn("the day is planned from that", self.client.get(f"{self.here}/runsheet").text)
        self.assertEqual(self.conditions().status_code, 303)
        text = self.client.get(f"{self.here}/runsheet").text
        self.assertIn("time-strip", text)
        self.assertIn("Prove that the engine is cold", text)

    def test_it_replans_when_something_changes(self):
        self.conditions(lift="yes")
        self.assertIn("Under: rust", self.client.get(f"{self.here}/runsheet").text)
        self.conditions()
        self.assertIn("Under from outside", self.client.get(f"{self.here}/runsheet").text)

    def test_a_step_begun_and_done_leaves_the_plan(self):
        self.conditions()
        self.client.post(f"{self.here}/steps/cold_proof/begin")
        self.assertIn('aria-label="Done: Prove that the engine is cold"', self.client.get(f"{self.here}/runsheet").text)
        self.client.post(f"{self.here}/steps/cold_proof/done")
        self.assertNotIn('aria-label="Begin: Prove', self.client.get(f"{self.here}/runsheet").text)

    def test_bad_times_are_refused_and_what_was_there_stays(self):
        self.conditions(available="90")
        for wrong in ({"begins": "noon"}, {"available": "soon"}, {"available": "-3"}, {"seller_until": "25:00"}):
            with self.subTest(wrong):
                self.assertEqual(self.conditions(**wrong).status_code, 422)
        begins = self.dossier().day.conditions.begins
        before = (begins - timedelta(minutes=5)).strftime("%H:%M")
        if before < begins.strftime("%H:%M"):
            self.assertIn("before the begin", self.conditions(seller_until=before).text)
        self.assertEqual(self.dossier().day.conditions.available, 90)

    def test_the_plan_is_a_calendar(self):
        self.assertEqual(self.client.get(f"{self.here}/plan.ics").status_code, 404)
        self.conditions()
        made = Calendar.from_ical(self.client.get(f"{self.here}/plan.ics").content)
        events = made.walk("VEVENT")
        self.assertGreater(len(events), 10)
        self.assertEqual(str(events[0]["summary"]), "Inspection: Pellin Mote")

    def test_an_unknown_step_is_404(self):
        self.assertEqual(self.client.post(f"{self.here}/steps/dance/begin").status_code, 404)


class Arriving(RoundCase):
    def arrive(self, **more):
        return self.client.post(f"{self.here}/arrival", data={"weather": "dry", **more}, follow_redirects=False)

    def altered(self, panel):
        return self.client.app.state.desk.reckoning(self.inspection).film.analysis.panel(panel).altered

    def test_dirt_widens_the_film_and_stands_in_the_report(self):
        for key, film in (("roof", 118), ("bonnet", 121), ("tailgate", 117), ("front_door_left", 119)):
            self.post(self.inspection, *(reading(key, film + i) for i in range(3)))
        self.post(self.inspection, *(reading("front_wing_left", value) for value in (132, 150, 140)))
        clean = self.altered("front_wing_left")
        self.assertEqual(self.arrive(dirt_front_corner_left="dirty").status_code, 303)
        self.assertLess(self.altered("front_wing_left"), clean)
        self.assertIn("Front corner, left: dirty", self.client.get(f"{self.here}/report").text)

    def test_a_warm_engine_changes_the_plan(self):
        data = {"begins": "", "available": "200", "engine_cold": "yes", "may_drive": "yes"}
        self.client.post(f"{self.here}/runsheet/conditions", data=data)
        self.arrive(engine="measured", engine_c="48", surroundings_c="14")
        text = self.client.get(f"{self.here}/runsheet").text
        self.assertIn("the engine was found warm", text)
        self.assertIn("Start of the warm engine", text)

    def test_bad_values_are_marked_at_their_fields_and_nothing_typed_is_lost(self):
        answer = self.arrive(stood_days="long", engine_c="400", stood_where="barn at Sandvey", engine="measured")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("a whole number of days", answer.text)
        self.assertIn("higher than can be", answer.text)
        self.assertIn('value="barn at Sandvey"', answer.text)
        self.assertIsNone(self.dossier().day.arrival)

    def test_stand_downs_and_open_questions_reach_the_report(self):
        self.client.post(f"{self.here}/standdowns", data={"act": "hazard.raised", "cause": "brake_pipe", "note": ""})
        self.write("general.hint", Hint(seen="card spread under the engine"), place="bay")
        text = self.client.get(f"{self.here}/report").text
        self.assertIn("brake pipe perforated; open", text)
        self.assertIn("card spread under the engine", text)


class Gaps(RoundCase):
    def keys(self):
        return [gap.key for gap in gaps(self.dossier())]

    def test_they_come_in_walk_order_and_each_takes_one_tap(self):
        # a hatchback with five doors: 17 places, film of 17 metal panels, fit of 6 that open, 8 panes and 7 lamps,
        # 4 tyres, 4 brakes, 7 looks at the engine (no power told), 50 functions (18 lamps, 7 driving, 6 of comfort,
        # 12 at doors, 7 at seats), 23 zones of the underside, 11 parts of the cabin, smells, belongings, memory, drive
        self.assertEqual(len(self.keys()), 170)
        self.assertEqual(self.keys()[:4], ["front", "bonnet", "bonnet", "windscreen"])
        self.client.post(f"{self.here}/gaps", data={"gap": "film:bonnet", "because": "dirty or wet"})
        self.assertEqual(self.keys().count("bonnet"), 1)  # its fit is still open
        self.assertEqual(self.dossier().film.limits["bonnet"][1], "dirty or wet")

    def test_finishing_with_gaps_asks_and_then_one_reason_serves_for_all(self):
        asked = self.client.post(f"{self.here}/stage", data={"stage": "finished"}, follow_redirects=False)
        self.assertIn("/gaps?finishing", asked.headers["location"])
        self.assertEqual(self.dossier().opening.stage, "begun")
        self.client.post(f"{self.here}/gaps", data={"gap": "all", "because": "no time", "finishing": "yes"})
        self.assertEqual(self.keys(), [])
        self.client.post(f"{self.here}/stage", data={"stage": "finished"})
        self.assertEqual(self.dossier().opening.stage, "finished")
        self.assertIn("could not be checked: no time", self.client.get(f"{self.here}/report").text)

    def test_it_can_be_finished_with_gaps_open_but_not_by_accident(self):
        self.client.post(f"{self.here}/stage", data={"stage": "finished", "anyway": "yes"})
        self.assertEqual(self.dossier().opening.stage, "finished")

    def test_a_limit_without_a_reason_is_refused(self):
        text = self.client.post(f"{self.here}/gaps", data={"gap": "all"}).text
        self.assertIn("Say why", text)
        self.assertEqual(len(self.keys()), 170)


class Settling(RoundCase):
    def setUp(self):
        super().setUp()
        self.hint = self.write("general.hint", Hint(seen="new clips"), place="rear")

    def settle(self, **form):
        return self.client.post(
            f"{self.here}/round/settle", data={"of": str(self.hint), **form}, follow_redirects=False
        )

    def test_an_answer_closes_the_question_and_stands_in_round_and_report(self):
        self.assertEqual(self.settle(answer="liner renewed", source="invoice", hearsay="yes").status_code, 303)
        self.assertEqual(self.dossier().general.open(Hint), [])
        for page in ("round", "report"):
            text = self.client.get(f"{self.here}/{page}").text
            self.assertIn("liner renewed", text)
            self.assertIn("hearsay", text)

    def test_an_empty_answer_is_refused_there_and_the_source_is_kept(self):
        answer = self.settle(answer="  ", source="invoice of the yard")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Say what it turned out to be", answer.text)
        self.assertIn("invoice of the yard", answer.text)
        self.assertEqual(len(self.dossier().general.open(Hint)), 1)

    def test_twice_is_once_and_another_answer_is_not_lost_over_the_first(self):
        self.settle(answer="liner renewed")
        count = len(self.dossier().entries)
        self.assertEqual(self.settle(answer="liner renewed").status_code, 303)
        answer = self.settle(answer="never off")
        self.assertEqual((answer.status_code, len(self.dossier().entries)), (409, count))
        self.assertIn("liner renewed", answer.text)
        self.assertIn("You wrote: “never off”", answer.text)

    def test_opened_again_by_taking_the_answer_back(self):
        self.settle(answer="liner renewed")
        [(entry, _)] = self.dossier().general.answers.values()
        self.client.post(f"{self.here}/round/open", data={"answer": str(entry.id)})
        self.assertEqual(len(self.dossier().general.open(Hint)), 1)
        self.assertNotIn("Settled: ", self.client.get(f"{self.here}/round").text)

    def test_a_question_that_is_none_is_not_found(self):
        for of in ("", "rear", str(self.inspection)):
            self.assertEqual(self.settle(of=of, answer="x").status_code, 404)
