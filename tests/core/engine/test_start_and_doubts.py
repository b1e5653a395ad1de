import unittest
from datetime import timedelta

from hakutsu.core.engine.after import after_drive
from hakutsu.core.engine.doubts import RunSoFar, doubts
from hakutsu.core.engine.start import bay_found, looks_found, noise_found, start_found, start_table, stood_found
from hakutsu.entries.day import Arrival
from hakutsu.entries.engine import Bay, BaySign, EngineIdle, EngineLook, EngineSample, EngineStart, heat_confirmed
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Consequence
from tests.builders import NOON


class Standing(unittest.TestCase):
    def said(self, days, **more):
        return [one.words for one in stood_found(Arrival(stood_days=days, **more))]

    def test_the_longest_time_reached_speaks(self):
        self.assertEqual(self.said(29), [])
        self.assertIn("stood more than a month", self.said(30)[0])
        self.assertIn("stale fuel", self.said(90)[0])
        self.assertIn("low distance is not low wear", self.said(4000)[0])
        self.assertEqual(len(self.said(4000)), 1)

    def test_only_idled_is_told(self):
        self.assertIn("only idled", self.said(2, moved="idled")[0])


class Starting(unittest.TestCase):
    def test_what_a_start_says(self):
        self.assertEqual(start_found(EngineStart(cranking_s=3.9)), [])
        self.assertIn("cranked long", start_found(EngineStart(cranking_s=4))[0].words)
        self.assertEqual(start_found(EngineStart(jump_started=True))[0].reasons, ("carried forward",))
        self.assertIn("no effect", start_found(EngineStart(procedure="glow", effect="none"))[0].words)

    def test_noise_by_its_seconds(self):
        self.assertEqual(noise_found("", 9), [])
        self.assertEqual(noise_found("rattle", 2)[0].consequence, Consequence.LIVE_WITH)
        self.assertEqual(noise_found("rattle", 3)[0].consequence, Consequence.SETTLE)
        self.assertIn("not told", noise_found("rattle", None)[0].words)

    def test_the_worst_fumes_are_told_once(self):
        looks = [EngineLook(fumes="wisps"), EngineLook(fumes="puffing"), EngineLook(fumes="none")]
        self.assertEqual([one.consequence for one in looks_found(looks)], [Consequence.SETTLE])
        self.assertEqual([one.consequence for one in looks_found(looks[:1])], [Consequence.BUDGET])
        self.assertEqual(looks_found(looks[2:]), [])

    def test_every_sign_under_the_bonnet_has_its_words(self):
        self.assertEqual({row["is"] for row in start_table()["sign"]}, {one.value for one in BaySign})
        self.assertEqual(len(bay_found(Bay(signs=tuple(BaySign)))), len(BaySign))
        one = bay_found(Bay(signs=("bolts", "filter"), side="left"))
        self.assertEqual([found.reasons for found in one], [("on the {left}",), ()])
        self.assertEqual(bay_found(Bay()), [])


class Heat(unittest.TestCase):
    def confirmed(self, *readings):
        return heat_confirmed([(minute, hot, False) for minute, hot in readings])

    def test_one_reading_never_confirms_itself(self):
        self.assertFalse(self.confirmed((5, 130)))
        self.assertFalse(self.confirmed((4, 92), (5, 130)))

    def test_read_again_at_once_and_alike_confirms(self):
        self.assertTrue(self.confirmed((20, 90), (21, 131), (21.2, 130)))
        self.assertFalse(self.confirmed((20, 90), (21, 131), (21.2, 91)))
        self.assertFalse(self.confirmed((20, 90), (21, 119), (21.2, 140)))

    def test_led_up_to_by_what_an_engine_can_do(self):
        self.assertTrue(self.confirmed((8, 108), (9, 113), (10, 118)))
        self.assertFalse(self.confirmed((8, 92), (9, 113), (10, 118)))
        self.assertFalse(self.confirmed((8, 108), (9, 113), (10, 117)))


class Doubting(unittest.TestCase):
    RUN = RunSoFar(((1, 20.0), (2, 28.0), (3, 35.0)), elapsed=4.0)

    def asked(self, kind="engine.sample", run=RUN, **body):
        return [(one.field, Terms().say(one.words)) for one in doubts(kind, body, run)]

    def test_what_goes_on_as_it_did_is_not_asked_about(self):
        self.assertEqual(self.asked(minute=4, coolant_c=42, rpm=900, oil_bar=3), [])
        self.assertEqual(self.asked(minute=1, coolant_c=20, run=RunSoFar()), [])

    def test_times_that_run_backwards_or_ahead(self):
        self.assertEqual(self.asked(minute=2.5, coolant_c=31)[0],
                         ("minute", "minute 2.5 lies before the last one, 3: noted late, or a slip?"))  # fmt: skip
        self.assertIn("still to come", self.asked(minute=12, coolant_c=60)[0][1])
        afterwards = RunSoFar(((10, 60.0),), elapsed=1.0)
        self.assertEqual(self.asked(minute=12, coolant_c=66, run=afterwards), [])

    def test_the_same_reading_twice(self):
        self.assertIn("the same one twice?", self.asked(minute=3, coolant_c=35)[0][1])

    def test_units_that_were_mixed(self):
        self.assertIn("typed in Fahrenheit?", self.asked(minute=4, coolant_c=108)[0][1])  # 108 °F are 42 °C
        self.assertIn("Fahrenheit", self.asked(minute=4, coolant_c=180)[0][1])
        self.assertIn("another unit", self.asked(minute=4, oil_bar=9)[0][1])

    def test_a_leap_and_impossible_numbers(self):
        self.assertIn("read it once more", self.asked(minute=4, coolant_c=75)[0][1])
        self.assertEqual(self.asked(minute=4, coolant_c=-30)[0][0], "coolant_c")
        self.assertEqual(self.asked(minute=4, rpm=20)[0][0], "rpm")

    def test_other_forms(self):
        self.assertEqual(self.asked("engine.battery", rest_v=12.5, crank_v=9.8, charging_v=14.2), [])
        self.assertEqual([one[0] for one in self.asked("engine.battery", rest_v=24.8)], ["rest_v"])
        self.assertEqual([one[0] for one in self.asked("engine.air", intake_c=77, vent_c=48)], ["intake_c"])
        self.assertIn("Fahrenheit", self.asked("engine.air", intake_c=77)[0][1])
        self.assertEqual([one[0] for one in self.asked("fluid.looked", freezes_c=8)], ["freezes_c"])
        self.assertEqual(self.asked("engine.sample", minute="x", coolant_c=None), [])


class AfterTheDrive(unittest.TestCase):
    def again(self, drove, looks=(), samples=(), idles=(), leaks=()):
        return {one.words: one for one in after_drive(drove, looks, samples, idles, leaks)}

    def test_nothing_before_a_drive_and_all_of_it_after(self):
        early = (NOON, EngineLook(smoke="blue_start", noise="tick"))
        self.assertEqual(self.again(None, [early]), {})
        leaks = [("engine oil: sump", [NOON])]
        found = self.again(NOON + timedelta(minutes=30), [early], leaks=leaks)
        self.assertEqual([one.done for one in found.values()], [False] * len(found))
        self.assertEqual(found["smoke, hot"].before, "blue at the start")
        self.assertEqual(found["noise"].before, "tick")
        self.assertIn("engine oil: sump", found)

    def test_each_is_done_by_its_own_look(self):
        drove, later = NOON + timedelta(minutes=30), NOON + timedelta(minutes=40)
        look = (later, EngineLook(smoke="none", when="after_drive"))
        sample = (later, EngineSample(minute=60, coolant_c=92, oil_bar=1.2))
        before = (NOON, EngineSample(minute=20, coolant_c=90, oil_bar=1.5))
        idle = (later, EngineIdle(rpm=(800.0,)))
        found = self.again(drove, [look], [before, sample], [idle], [("leak", [NOON, later])])
        self.assertEqual({words for words, one in found.items() if not one.done}, {"crankcase fumes, hot"})

    def test_a_look_that_says_so_stands_for_the_drive(self):
        look = (NOON, EngineLook(fumes="none", when="after_drive"))
        self.assertTrue(self.again(None, [look])["crankcase fumes, hot"].done)
