"""What a good car of eight years costs: a figure from outside the engine holds the whole of it."""

from hakutsu.core.life.components import scheduled_items
from hakutsu.entries.corners import Brake, PartProof, Tyre
from hakutsu.entries.money import MechanicsSaid
from hakutsu.entries.opening import Brief
from hakutsu.reckoning import Reckoning
from tests.inspection import InspectionCase

PLAUSIBLE = (2300, 3900)  # our own judgement: median of 36 months at 65 an hour and our table of costs
FACTS = {"first_used": "2018-11-20", "odometer_km": 104_000, "power": "petrol", "gearbox": "manual", "drive": "front",
         "timing": "belt", "rear_axle": "beam", "front_brakes": "discs", "rear_brakes": "discs"}  # fmt: skip
WHEELS = {"wheel_front_left": 5.0, "wheel_front_right": 5.0, "wheel_rear_left": 6.0, "wheel_rear_right": 6.0}


class AGoodCar(InspectionCase):
    def setUp(self):
        super().setUp()
        self.write("inspection.brief", Brief(km_per_year=13_000))
        self.write("inspection.mechanics", MechanicsSaid(mechanics=FACTS))
        for item in scheduled_items():
            self.write("life.proof", PartProof(part=item, when="2026-10", at_km=103_500, proof="invoice"))
        for wheel, depth in WHEELS.items():
            self.write("corner.tyre", Tyre(depth_mm=(depth,), date_code="2223"), place=wheel)
            self.write("corner.brake", Brake(pad_inner_mm=7.0, pad_outer_mm=7.0, disc_mm=(23.0,), disc_min_mm=22.0,
                                             disc_new_mm=24.0), place=wheel)  # fmt: skip

    def spending(self):
        return Reckoning(self.dossier()).lives.spending

    def test_three_years_of_it_cost_what_such_cars_cost(self):
        *_, three = self.spending()
        self.assertEqual(three.months, 36)
        self.assertTrue(PLAUSIBLE[0] <= three.p50 <= PLAUSIBLE[1], three.p50)
        # not too sure: one in ten is far cheaper, one in ten far dearer
        self.assertGreater(three.p90 / three.p10, 1.8)

    def test_totals_grow_with_the_months_and_nothing_of_it_is_settled(self):
        totals = [(one.p10, one.p50, one.p90) for one in self.spending()]
        self.assertEqual(totals, sorted(totals))
        self.assertEqual(Reckoning(self.dossier()).lives.sheet.settled, 0)
