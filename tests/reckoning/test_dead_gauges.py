from hakutsu.core.follow_up import limits_of_findings
from hakutsu.entries.by_feel import Needle, NeedleOf
from hakutsu.entries.follow_up import ProposalDropped
from hakutsu.entries.functions import Tried
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.equipment import OWN, equipment
from tests.inspection import InspectionCase


class DeadGauges(InspectionCase):
    def proposed(self):
        return [one.rule for one in Reckoning(self.dossier()).proposed_limits]

    def test_a_gauge_that_is_dead_at_any_station_proposes_the_limit_it_causes(self):
        for kind, body, rule in (
            ("function.tried", Tried(item="temperature_gauge", result="fails"), "temperature_gauge"),
            ("function.tried", Tried(item="fuel_gauge", result="fails"), "fuel_gauge"),
            ("function.tried", Tried(item="speedometer", result="fails"), "instruments"),
            ("engine.needle", Needle(of="oil", steady="dead"), "oil_gauge"),
        ):
            with self.subTest(kind, rule=rule):
                self.write(kind, body)
                self.assertIn(rule, self.proposed())

    def test_every_finding_that_causes_a_limit_is_among_those_asked_for(self):
        # a code of the table that its station does not offer would propose nothing, and nobody would notice
        for of in NeedleOf:
            self.write("engine.needle", Needle(of=of, steady="dead"))
        for item in equipment():
            self.write("function.tried", Tried(item=item, result="fails", name="x" if item == OWN else ""))
        reckoning = Reckoning(self.dossier())
        follow, known = reckoning.dossier.follow_ups, reckoning.entries
        every = {(one.entry.id, one.rule) for one in limits_of_findings(follow, reckoning.findings, known)}
        self.assertEqual({(one.entry.id, one.rule) for one in reckoning.proposed_limits}, every)
        self.assertEqual({rule for _, rule in every}, {"temperature_gauge", "oil_gauge", "fuel_gauge", "instruments"})

    def test_one_that_works_or_wanders_proposes_nothing_and_a_proposal_can_be_dropped(self):
        self.write("engine.needle", Needle(of="temperature", steady="wanders"))
        self.write("function.tried", Tried(item="temperature_gauge", result="works"))
        self.assertEqual(self.proposed(), [])
        cause = self.write("engine.needle", Needle(of="temperature", steady="dead"))
        self.write("general.proposal_dropped", ProposalDropped(of=cause, rule="temperature_gauge"))
        self.assertEqual(self.proposed(), [])
