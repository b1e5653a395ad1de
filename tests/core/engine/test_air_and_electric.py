import unittest

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.engine.air import Cooling, cooling, enthalpy, expected_vent, heater, vapour_pressure
from hakutsu.core.engine.electric import (
    Chemistry,
    Level,
    cell_spread,
    charge,
    charging,
    conductance,
    cranking,
    cranking_minimum,
    pack_health,
    rest_voltage,
)
from hakutsu.core.engine.oil import OilReading, oil_verdict


class Air(unittest.TestCase):
    def test_check_values_of_the_trade(self):
        for air, humidity, vent in ((25, 0.5, 9), (30, 0.8, 16), (35, 0.5, 15.5)):
            self.assertAlmostEqual(expected_vent(air, humidity), vent, delta=0.6)

    def test_moist_air_against_the_tables(self):
        self.assertAlmostEqual(vapour_pressure(20, 1.0), 2337, delta=8)  # saturation at 20 °C: 2,337 Pa
        self.assertAlmostEqual(enthalpy(25, 0.5), 50.3, delta=0.5)  # kJ/kg

    def test_healthy_weak_and_not(self):
        for vent, said in ((12.9, Cooling.HEALTHY), (17.0, Cooling.WEAK), (22.0, Cooling.NOT)):
            self.assertIs(cooling(25, vent, 0.5).cooling, said)

    def test_unknown_humidity_must_not_decide(self):
        self.assertIs(cooling(32, 8).cooling, Cooling.HEALTHY)
        self.assertIs(cooling(32, 29).cooling, Cooling.NOT)
        self.assertIs(cooling(32, 16).cooling, Cooling.INCONCLUSIVE)

    def test_cool_days_say_little_but_a_vent_that_stays_says_no(self):
        self.assertIs(cooling(18, 9, 0.5).cooling, Cooling.WORKS)
        self.assertIs(cooling(12, 8, 0.5).cooling, Cooling.INCONCLUSIVE)
        self.assertIs(cooling(12, 11, 0.5).cooling, Cooling.NOT)
        self.assertIs(cooling(12, 11, 0.5, called=False).cooling, Cooling.INCONCLUSIVE)

    def test_heater_only_on_a_warm_engine(self):
        self.assertEqual([heater(46, engine_warm=True), heater(44, engine_warm=True)], [True, False])
        self.assertIsNone(heater(60, engine_warm=False))

    @given(st.floats(20, 45), st.floats(0.1, 0.95), st.floats(0.01, 0.04))
    def test_damper_air_never_lowers_what_is_expected(self, air, humidity, more):
        self.assertLessEqual(expected_vent(air, humidity), expected_vent(air, min(1.0, humidity + more)) + 1e-6)


class Battery(unittest.TestCase):
    def test_charge_by_rest_voltage(self):
        for volts, share in ((12.65, 1.0), (12.45, 0.75), (12.24, 0.5), (12.06, 0.25), (11.9, 0.0), (13.5, 1.0)):
            self.assertAlmostEqual(charge(volts), share)
        self.assertAlmostEqual(charge(12.57, agm=True), 0.75)
        self.assertAlmostEqual(charge(6.325, six=True), 1.0)

    def test_without_its_conditions_it_says_nothing_and_which(self):
        said = rest_voltage(12.6, rested_h=1, surface_off=True, asleep=False)
        self.assertIs(said.level, Level.INCONCLUSIVE)
        self.assertIn("rested four hours, not modules asleep", said.words)
        self.assertIs(rest_voltage(12.6, rested_h=None, surface_off=True, asleep=True).level, Level.INCONCLUSIVE)
        self.assertIs(rest_voltage(12.0, rested_h=8, surface_off=True, asleep=True).level, Level.BAD)

    def test_cranking_minimum_by_temperature(self):
        self.assertAlmostEqual(cranking_minimum(21), 9.6)
        self.assertAlmostEqual(cranking_minimum(30), 9.6)
        self.assertAlmostEqual(cranking_minimum(9.8), 9.4)  # 11.2 °C colder: two steps
        # 17 °C to the turn: 3.04 steps of 0.1; 5.6 °C beyond: one of 0.2
        self.assertAlmostEqual(cranking_minimum(-1.6), 9.6 - 0.1 * 17 / 5.6 - 0.2)
        self.assertIs(cranking(9.3, 21).level, Level.WATCH)

    def test_charging_and_conductance(self):
        said = [charging(v) for v in (13.1, 13.2, 13.7, 13.8, 14.7, 14.8, 15.0, 15.6)]
        self.assertEqual([one.level for one in said], [
            Level.FAULT, Level.WATCH, Level.WATCH, Level.GOOD, Level.GOOD, Level.WATCH, Level.FAULT, Level.FAULT,
        ])  # fmt: skip
        self.assertEqual([one.of for one in said[1:3]], ["charging_low"] * 2)
        self.assertEqual([charging(v, smart=True).level for v in (12.9, 15.2)], [Level.WATCH, Level.WATCH])
        self.assertIs(charging(15.6, smart=True).level, Level.FAULT)

    def test_six_volts_halve_every_limit(self):
        for volts in (13.1, 13.2, 13.8, 14.7, 14.8, 15.0, 15.6):
            self.assertEqual(charging(volts / 2, six=True).level, charging(volts).level, volts)
        self.assertIs(cranking(4.9, 21, six=True).level, Level.GOOD)
        self.assertIs(cranking(4.7, 21, six=True).level, Level.WATCH)

    def test_conductance(self):
        levels = [conductance(value, 600).level for value in (480, 479, 360, 359)]
        self.assertEqual(levels, [Level.GOOD, Level.WATCH, Level.WATCH, Level.BAD])
        with self.assertRaises(ValueError):
            conductance(300, 0)


class Pack(unittest.TestCase):
    def test_cells_by_chemistry_and_charge(self):
        levels = [cell_spread(mv, 0.5, Chemistry.NMC).level for mv in (30, 31, 100, 101)]
        self.assertEqual(levels, [Level.GOOD, Level.WATCH, Level.WATCH, Level.FAULT])
        for charged, chemistry in (
            (0.9, Chemistry.NMC),
            (None, Chemistry.NMC),
            (0.5, Chemistry.LFP),
            (0.5, Chemistry.UNKNOWN),
        ):
            self.assertIs(cell_spread(200, charged, chemistry).level, Level.INCONCLUSIVE)
        self.assertIs(cell_spread(20, 0.98, Chemistry.LFP).level, Level.GOOD)

    def test_expected_health_by_hand(self):
        # four years, 500 cycles: 1 − 0.06 − 0.06
        found = pack_health(4, 500)
        self.assertAlmostEqual(found.median, 0.88)
        self.assertAlmostEqual((1 - found.low) / (1 - found.high), 1.4 ** (2 * 1.2816), places=3)
        self.assertEqual(pack_health(0, 0).median, 1.0)


class MildDays(unittest.TestCase):
    def test_from_ten_to_twenty_degrees_only_the_intake_is_held_against_the_vent(self):
        for vent, said in (
            (7.0, Cooling.WORKS),
            (7.1, Cooling.INCONCLUSIVE),
            (9.9, Cooling.INCONCLUSIVE),
            (10.0, Cooling.NOT),
        ):
            self.assertIs(cooling(12.0, vent).cooling, said, vent)

    def test_below_ten_nothing_is_concluded(self):
        self.assertIs(cooling(9.9, 9.9).cooling, Cooling.INCONCLUSIVE)
        self.assertIs(cooling(9.9, 2.0).cooling, Cooling.INCONCLUSIVE)

    def test_before_ten_minutes_or_not_called_for_it_is_not_said_to_fail(self):
        self.assertIs(cooling(15.0, 15.0, minutes=6).cooling, Cooling.INCONCLUSIVE)
        self.assertIs(cooling(15.0, 15.0, minutes=10).cooling, Cooling.NOT)
        self.assertIs(cooling(15.0, 15.0, called=False).cooling, Cooling.INCONCLUSIVE)


class TwoStagePump(unittest.TestCase):
    def test_it_lowers_its_pressure_by_design(self):
        low = [OilReading(800, 0.2, 90.0)]
        self.assertEqual(oil_verdict(low).code, "engine.oil_pressure_low")
        self.assertEqual(oil_verdict(low, two_stage=True).code, "engine.oil_pressure_two_stage")
        high = [OilReading(800, 3.0, 90.0)]
        self.assertEqual(oil_verdict(high, two_stage=True).code, oil_verdict(high).code)
