import unittest

from hakutsu.core.life import Life, Quantiles
from hakutsu.entries.cabin import CabinLooked, CabinWear, Control, Inventory
from hakutsu.entries.corners import Brake, Fluid, Gear, Height, PartProof, Pedal, Tyre, Wheel
from hakutsu.entries.engine import Air, Battery, Bay, EngineIdle, EngineLook, EngineSample, EngineStart, Pack
from hakutsu.entries.fluids import Fluid as Looked
from hakutsu.entries.functions import FittedSaid, Lamp, Tried
from hakutsu.entries.money import ClaimPriced, Line, MechanicsSaid
from hakutsu.entries.under import Leak, UnderZone
from hakutsu.report.corner_wording import km_words, part_name, rough
from hakutsu.report.life_section import exact_money, month_words, rough_money
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import Terms

IMPERIAL = Terms(distance="mi", depth="in32", temperature="f", pressure="psi", names="american")
CLAIM = "7d0f0b1e-3c1c-4f52-9a53-0d8c1f3b0a11"


class EntriesInWords(unittest.TestCase):
    def says(self, body, *parts, terms=None):
        words = body_words(body, terms)[1] if terms else body_words(body)[1]
        for part in parts:
            self.assertIn(part, words)

    def test_corners(self):
        self.says(Tyre(depth_mm=(3.1, 4.6, 4.8), date_code="3222"), "3.1 / 4.6 / 4.8 mm", "by gauge", "date code 3222")
        self.says(Brake(pad_km_left=(16_000, 24_000)), "pads good for 9,942 mi to 14,913 mi", terms=IMPERIAL)
        self.says(Brake(pad_km_left=(16_000, 16_000)), "pads good for 16,000 km")
        self.says(Tyre(range_mm=(4, 5), per_cent=40), "a range", "40 % from new down to the legal limit")
        self.says(Tyre(depth_mm=(3.175,), pressure_bar=2.2), "4/32 in", "32 psi", terms=IMPERIAL)
        self.says(Tyre(), "looked at")
        self.says(Wheel(fixings_missing=1, lock_key=False), "1 fixing missing", "lock-nut key not found")
        self.says(Wheel(), "nothing out of order")
        self.says(
            Brake(pad_inner_mm=4.6, disc_mm=(24.1, 24.0), hose="sound", wet=True), "pad inner 4.6 mm", "wet with fluid"
        )
        self.says(Gear(part="damper", grade="worn", tested="by hand", play_mm=2), "damper: worn", "play 2 mm")
        self.says(Height(height_mm=352), "352 mm")
        self.says(Fluid(kind="dot4", boils_c=158, dark=True), "boils at 158 °C", "dark")
        self.says(Pedal(sinks=False, parking="holds", clicks=7), "does not sink in 30 s", "7 clicks")

    def test_proofs_facts_and_money(self):
        self.says(PartProof(part="battery", when="2023-10", proof="invoice"), "starter battery: new or done 2023-10")
        self.says(
            MechanicsSaid(mechanics={"power": "hybrid", "odometer_km": 160_934}), "100,000 mi", "hybrid", terms=IMPERIAL
        )
        self.says(MechanicsSaid(mechanics={}), "nothing known")
        self.says(Line(code="job", subject="clutch", treat="settle", amount="80"), "clutch: settle", "80")
        self.says(ClaimPriced(of=CLAIM, amount="1250", because="old"), "takes off 1,250: old")
        self.assertEqual((part_name("pads"), part_name("some_thing")), ("brake pads", "some thing"))

    def test_engine(self):
        start = EngineStart(cranking_s=1.5, noise="rattle", noise_s=2, jump_started=True)
        self.says(start, "cranked 1.5 s", "rattle, for 2 s", "jump started")
        self.says(EngineStart(), "started")
        self.says(EngineStart(procedure="glow", effect="none"), "glow, had no effect")
        self.says(
            EngineIdle(rpm=(780, 800), warm=True, by_link=True), "2 speeds at 1 a second, mean 790 rpm", "warm, by link"
        )
        self.says(EngineLook(when="after_drive", noise="tick", noise_s=4), "after the drive", "tick, for 4 s")
        self.says(Bay(), "looked, nothing found")
        bay = Bay(signs=("insulation",), side="left")
        self.says(bay, "hood insulation missing or new, left", terms=IMPERIAL)
        self.says(EngineSample(minute=4, coolant_c=45.5, rpm=850, fan=True), "minute 4", "850 rpm", "fan running")
        self.says(EngineSample(minute=4, coolant_c=100), "212 °F", terms=IMPERIAL)
        self.says(EngineLook(fumes="wisps", steam=True), "crankcase fumes: wisps", "steam")
        self.says(Air(intake_c=24, vent_c=9, humidity=0.6, called=False), "60 % humidity", "not called for")
        self.says(Battery(rest_v=12.5, rested_h=9, asleep=True, measured=480, rated=600), "12.5 V", "480 of 600")
        self.says(Battery(), "looked at")
        self.says(Pack(health=0.91, chemistry="nmc", spread_mv=24, charged=0.5), "health 91 %", "at 50 % charge")
        self.says(Looked(fluid="coolant", level="low", colour="rusty", freezes_c=-12), "level low", "rusty, muddy")

    def test_functions_cabin_and_underside(self):
        self.says(Tried(item="horn", result="but", but="weak"), "horn", "weak")
        self.says(Tried(item="reversing_lamps", result="partly", working=1, of=2), "(1 of 2)")
        self.assertEqual(body_words(FittedSaid(item="roof", there=False)), ("Not fitted", "roof opening"))
        self.says(Lamp(name="brakes", red=True), "brakes, red, fault")
        self.says(CabinWear(part="rim", wear="heavy", renewed=True), "steering wheel rim: heavy, renewed")
        self.says(CabinLooked(no_smell=True, dry=("boot",)), "no smell, dry boot floor")
        self.says(Inventory(thing="jack", there="missing"), "jack and wheel wrench: missing")
        self.says(Control(looks="toggle"), "toggle, nobody knows what it does")
        self.says(Control(looks="toggle", does="clicks", picture="7"), "did clicks", "picture 7")
        self.says(UnderZone(zone="tank", clear=("rust",)), "tank and straps, or pack: no rust")
        self.says(UnderZone(zone="tank", not_visible="covered"), "not visible: covered")
        self.says(UnderZone(zone="tank", pipes="rusted", exhaust="leaks"), "pipes rusted, exhaust leaks")
        self.says(Leak(fluid="oil", origin="sump", stage="drip", drops=3, minutes=5), "from sump", "3 drops a minute")


class LivesInWords(unittest.TestCase):
    def life(self, *km, limited="wear"):
        return Life("x", Quantiles(*km), None, limited, ())

    def test_two_figures_and_an_interval(self):
        self.assertEqual(km_words(self.life(8_412, 19_377, 31_801), Terms()), "about 19,000 km left (8,400 to 32,000)")
        self.assertEqual(km_words(self.life(0, 0, 0, limited="age"), Terms()), "nothing left, by age")
        self.assertEqual(
            km_words(self.life(32_200, 32_200, 32_200, limited="age"), Terms()), "about 32,000 km left, by age"
        )
        self.assertIn("mi left", km_words(self.life(8_412, 19_377, 31_801), IMPERIAL))
        self.assertEqual(km_words(Life("x", None, None, None, ("no minimum given",)), Terms()), "no minimum given")

    def test_rounding_pretends_nothing(self):
        self.assertEqual([rough(one) for one in (0, 7, 43, 437, 4_370, 43_700)], [0, 7, 43, 440, 4_400, 44_000])

    def test_months_as_dates(self):
        from datetime import date

        begin = date(2026, 11, 25)
        self.assertEqual([month_words(m, begin) for m in (0, 4, 130)], ["now", "Mar 2027", "after 2036"])

    def test_money_in_its_currency(self):
        self.assertEqual(exact_money(9800, "EUR"), "€9,800.00")
        self.assertEqual(rough_money(2455.4, "EUR"), "€2,455")
        self.assertEqual(exact_money(900, "JPY"), "¥900")
