from hakutsu.entries.general import AskSeller, DoNotKnow, ForDesk, Hint, Settled, Station, Strike
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised
from hakutsu.reckoning import Reckoning
from hakutsu.report.round_section import answered_questions, hazard_lines, open_questions
from tests.inspection import InspectionCase


class RoundSectionCase(InspectionCase):
    def reckoning(self):
        return Reckoning(self.dossier())


class StandDownsInTheReport(RoundSectionCase):
    def raised(self):
        return self.write("hazard.raised", HazardRaised(cause="fuel_wet", note="at the filter"))

    def test_an_open_one_is_called_open_and_keeps_its_note(self):
        self.raised()
        [line] = hazard_lines(self.reckoning())
        self.assertIn("(at the filter)", line)
        self.assertTrue(line.endswith("; open"))

    def test_an_override_names_who_and_why_and_leaves_it_open(self):
        of = self.raised()
        body = HazardOverridden(of=of, name="Ina Moe", reason="ferry leaves", activity="walking_pace")
        self.write("hazard.overridden", body)
        [line] = hazard_lines(self.reckoning())
        self.assertIn("by Ina Moe: ferry leaves", line)
        self.assertTrue(line.endswith("; open"))

    def test_a_cleared_one_names_the_trade_and_what_was_done(self):
        of = self.raised()
        self.write("hazard.cleared", HazardCleared(of=of, name="Odd Brae", trade="fitter", done="hose renewed"))
        [line] = hazard_lines(self.reckoning())
        self.assertTrue(line.endswith("cleared by Odd Brae, fitter: hose renewed"))

    def test_no_stand_down_no_line(self):
        self.assertEqual(hazard_lines(self.reckoning()), [])


class QuestionsInTheReport(RoundSectionCase):
    def test_groups_in_one_order_whatever_order_they_were_asked_in(self):
        self.write("general.do_not_know", DoNotKnow(what="age of the belt", station=Station.GENERAL))
        self.write("general.for_desk", ForDesk(question="date letters"), place="rear")
        self.write("general.ask_seller", AskSeller(question="why two keys?"))
        self.write("general.hint", Hint(seen="new clips"), place="roof")
        found = open_questions(self.reckoning())
        self.assertEqual([name for name, _ in found], ["Hints", "To ask the seller", "For the desk", "Not known"])
        self.assertEqual([[one.place for one in kept] for _, kept in found], [["Roof"], [""], ["Rear"], [""]])
        self.assertEqual([kept[0].at_place for _, kept in found], [True, False, True, False])

    def test_an_answer_moves_its_question_and_hearsay_stays_marked(self):
        asked = self.write("general.ask_seller", AskSeller(question="why two keys?"))
        self.write("general.settled", Settled(of=asked, answer="one was lost", source="seller", hearsay=True))
        self.assertEqual(open_questions(self.reckoning()), [])
        [one] = answered_questions(self.reckoning())
        self.assertEqual((one.answer, one.source, one.hearsay), ("one was lost", "seller", True))

    def test_striking_question_or_answer_takes_the_pair_apart(self):
        asked = self.write("general.hint", Hint(seen="new clips"))
        answer = self.write("general.settled", Settled(of=asked, answer="liner renewed"))
        self.write("general.strike", Strike(), strikes=answer)
        self.assertEqual(len(open_questions(self.reckoning())), 1)
        self.write("general.settled", Settled(of=asked, answer="liner renewed"))
        self.write("general.strike", Strike(), strikes=asked)
        self.assertEqual((open_questions(self.reckoning()), answered_questions(self.reckoning())), ([], []))
