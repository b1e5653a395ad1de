from datetime import timedelta

from hakutsu.core.follow_up import EXPLAINED, OWN_DOING, proposed_limits, second_looks
from hakutsu.entries import Draft
from hakutsu.entries.follow_up import LookAgain, LookedAgain, Moment, ProposalDropped
from hakutsu.entries.general import DidNotWork, Hint, Intervention, Limit, Seen, Settled, Strike
from hakutsu.entries.hazards import StepBegun, StepDone
from tests.builders import NOON
from tests.inspection import InspectionCase


class FollowUpCase(InspectionCase):
    def at(self, minutes, kind, body, **envelope):
        draft = Draft.write(kind, body, NOON + timedelta(minutes=minutes), **envelope)
        self.logbook.append(self.inspection, [draft], "Test Inspector")
        return draft.id

    def looks(self, minutes=0):
        found = self.dossier()
        return second_looks(found.follow_ups, found.general, found.hazards, NOON + timedelta(minutes=minutes))

    def due(self, minutes=0):
        return [one.due for one in self.looks(minutes)]


class SecondLooks(FollowUpCase):
    def test_a_leak_is_looked_at_again_once_the_engine_ran_after_the_first_look(self):
        self.at(0, "step.done", StepDone(step="cold_start"))
        self.at(1, "general.seen", Seen(text="damp below the pump"), place="bay")
        self.assertEqual((self.due(), self.looks()[0].moment), ([False], "after running"))
        self.at(20, "step.done", StepDone(step="warm_up"))
        self.assertEqual(self.due(), [True])

    def test_a_noise_waits_for_the_drive(self):
        self.at(0, "general.seen", Seen(text="tyre cupped, hums when spun"), place="rear_corner_left")
        self.assertEqual(self.due(), [False])
        self.at(40, "step.done", StepDone(step="road"))
        self.assertEqual(self.due(), [True])

    def test_an_intervention_wants_one_by_what_was_done(self):
        self.at(0, "general.intervention", Intervention(done="wiped the sump plug"), place="under_front")
        self.at(1, "general.intervention", Intervention(done="lifted the boot carpet"), place="boot")
        self.assertEqual([one.moment for one in self.looks()], ["after running", "before leaving"])
        self.at(90, "step.begun", StepBegun(step="closing_talk"))
        self.assertEqual(self.due(), [False, True])

    def test_our_own_doing_counts_for_nothing_until_somebody_looks_again(self):
        mark = self.at(0, "general.seen", Seen(text="scratch by our lamp"), place="front", own_doing=True)
        look = self.looks()[0]
        self.assertEqual((look.because, look.open), (OWN_DOING, True))
        self.at(9, "general.looked_again", LookedAgain(of=mark, outcome="gone", text="it was chalk"))
        look = self.looks()[0]
        self.assertEqual((look.open, look.looked[0][1].outcome), (False, "gone"))

    def test_what_did_not_work_is_tried_again_once_somebody_explained_it(self):
        switch = self.at(0, "general.did_not_work", DidNotWork(what="rear wiper"), place="inside_front")
        self.assertEqual(self.looks(), [])
        self.at(5, "general.settled", Settled(of=switch, answer="press twice", source="seller", hearsay=True))
        self.assertEqual([(one.due, one.because) for one in self.looks()], [(True, EXPLAINED)])

    def test_asked_for_in_ten_minutes_it_is_due_in_ten(self):
        seen = self.at(0, "general.seen", Seen(text="level a hand below the mark"), place="bay")
        self.at(0, "general.look_again", LookAgain(of=seen, minutes=10))
        self.assertEqual([self.due(minutes) for minutes in (0, 9.9, 10, 600)], [[False], [False], [True], [True]])

    def test_what_was_asked_for_comes_before_the_rule(self):
        seen = self.at(0, "general.seen", Seen(text="oily hose"), place="bay")
        self.at(0, "general.look_again", LookAgain(of=seen, moment=Moment.AFTER_DRIVE))
        self.assertEqual([one.moment for one in self.looks()], ["after the drive"])

    def test_an_ordinary_remark_and_a_struck_one_want_none(self):
        self.at(0, "general.seen", Seen(text="two keys"), place="desk")
        leak = self.at(1, "general.seen", Seen(text="a drip"), place="bay")
        self.at(2, "general.strike", Strike(), strikes=leak)
        self.assertEqual(self.looks(), [])


class LimitsOfFindings(FollowUpCase):
    def rules(self):
        return [one.rule for one in proposed_limits(self.dossier().follow_ups)]

    def test_a_finding_proposes_what_it_hides(self):
        for text, rule in (
            ("the temperature gauge is dead", "temperature_gauge"),
            ("rear left door jammed", "door"),
            ("boot locked, no key for it", "door"),
            ("odometer dark", "instruments"),
            ("battery flat", "no_start"),
            ("it will not start", "no_start"),
            ("undertray in the way", "covered_under"),
            ("boot full of nets", "loaded"),
            ("locking nut key missing", "wheel_lock"),
            ("scan does not answer", "silent_socket"),
            ("hand brake seized", "parking_brake"),
            ("driver's window stuck", "window"),
        ):
            with self.subTest(text):
                entry = self.at(0, "general.seen", Seen(text=text), place="front")
                mine = [one.rule for one in proposed_limits(self.dossier().follow_ups) if one.entry.id == entry]
                self.assertEqual(mine, [rule])

    def test_an_ordinary_remark_proposes_none(self):
        for text in (
            "two keys",
            "temperature gauge reads 90",
            "door opens well",
            "starts at once",
            "boot dry and clean",
        ):
            self.at(0, "general.seen", Seen(text=text), place="front")
        self.at(0, "general.hint", Hint(seen="a new clamp on an old hose"), place="bay")
        self.at(0, "general.intervention", Intervention(done="undertray taken off"), place="under_front")
        self.assertEqual(self.rules(), [])

    def test_taken_or_dropped_it_is_proposed_no_more_and_struck_it_is_again(self):
        one = self.at(0, "general.did_not_work", DidNotWork(what="temperature gauge: dead"), place="inside_front")
        other = self.at(0, "general.seen", Seen(text="door jammed"), place="flank_left")
        self.assertEqual(self.rules(), ["temperature_gauge", "door"])
        limit = Limit(station="general", because="heat", caused_by=one, rule="temperature_gauge")
        taken = self.at(1, "general.limit", limit, place="inside_front")
        self.at(1, "general.proposal_dropped", ProposalDropped(of=other, rule="door"), place="flank_left")
        self.assertEqual(self.rules(), [])
        self.at(2, "general.strike", Strike(), strikes=taken)
        self.assertEqual(self.rules(), ["temperature_gauge"])

    def test_a_limit_that_a_finding_causes_does_not_make_its_place_unlooked_at(self):
        seen = self.at(0, "general.seen", Seen(text="door jammed"), place="flank_left")
        limit = Limit(station="general", because="behind it", caused_by=seen, rule="door")
        self.at(1, "general.limit", limit, place="flank_left")
        place = next(one for one in self.dossier().place_coverage() if one.place == "flank_left")
        self.assertEqual((str(place.looked), place.because), ("done", ""))
