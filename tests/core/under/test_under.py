import re
import unittest
from datetime import UTC, datetime, timedelta
from xml.etree import ElementTree

from pydantic import ValidationError

from hakutsu.core.under.leaks import leak_found, linked
from hakutsu.core.under.zones import uneven, zone_found
from hakutsu.entries.corners import Grade
from hakutsu.entries.fluids import Fluid
from hakutsu.entries.under import Leak, UnderZone
from hakutsu.figures.under import ZoneShown, under_schematic
from hakutsu.vehicle.under import zones
from hakutsu.vehicle.vocabulary import Consequence

NOON = datetime(2026, 11, 20, 12, tzinfo=UTC)


def words(zone="under_sill_left", **body):
    return [one.words for one in zone_found(UnderZone(zone=zone, **body))]


class Zones(unittest.TestCase):
    def test_twins_mirror_each_other_and_nothing_overlaps(self):
        boxes = [zone.patch for zone in zones().values()]
        for key, zone in zones().items():
            if zone.twin:
                x, y, wide, high = zones()[zone.twin].patch
                self.assertEqual(zone.patch, (x, -y - high, wide, high), key)
        for i, (x, y, wide, high) in enumerate(boxes):
            for u, v, across, down in boxes[i + 1 :]:
                apart = x + wide <= u or u + across <= x or y + high <= v or v + down <= y
                self.assertTrue(apart, (boxes[i], (u, v, across, down)))

    def test_rust_in_what_carries_is_settled_from_scale_on(self):
        for grade, follows in (
            ("surface", Consequence.LIVE_WITH),
            ("scale", Consequence.SETTLE),
            ("pitted", Consequence.SETTLE),
            ("perforated", Consequence.WALK_AWAY),
        ):
            found = zone_found(UnderZone(zone="under_sill_left", rust=grade))
            self.assertEqual(found[0].consequence, follows)
        self.assertEqual(zone_found(UnderZone(zone="tunnel", rust="pitted"))[0].consequence, Consequence.BUDGET)
        self.assertEqual(zone_found(UnderZone(zone="tunnel", rust="surface"))[0].consequence, Consequence.LIVE_WITH)

    def test_the_other_side_is_asked_for_until_it_is_told(self):
        [once] = zone_found(UnderZone(zone="under_sill_left", rust="scale"))
        self.assertEqual(once.open.check, "look at it from the other side too")
        [both] = zone_found(UnderZone(zone="under_sill_left", rust="scale", other_side="sound"))
        self.assertIsNone(both.open)

    def test_signs_of_work_count_most_where_it_carries(self):
        self.assertEqual(
            zone_found(UnderZone(zone="rear_rail_left", repair=("pulled",)))[0].consequence, Consequence.SETTLE
        )
        self.assertEqual(
            zone_found(UnderZone(zone="rear_rail_left", repair=("sealer",)))[0].consequence, Consequence.BUDGET
        )
        self.assertEqual(zone_found(UnderZone(zone="tunnel", repair=("weld",)))[0].consequence, Consequence.BUDGET)
        self.assertIn("catalytic converter not there", words("tunnel", catalyst=False))
        self.assertIn("missing: cover", words("bay_floor", missing="cover"))

    def test_twins_that_did_not_age_alike(self):
        looks = {
            "under_sill_left": UnderZone(zone="under_sill_left", clear=("rust",)),
            "under_sill_right": UnderZone(zone="under_sill_right", rust="scale"),
        }
        self.assertIn("{left} side is much cleaner", uneven(looks)[0].words)
        looks["under_sill_left"] = UnderZone(zone="under_sill_left", rust="surface")
        self.assertEqual(uneven(looks), [])
        looks["under_sill_left"] = UnderZone(zone="under_sill_left", exhaust="sound")  # nobody spoke of its rust
        self.assertEqual(uneven(looks), [])

    def test_an_unknown_zone_is_refused_and_rust_through_forbids_lifting(self):
        with self.assertRaises(ValidationError):
            UnderZone(zone="cellar")
        self.assertEqual(UnderZone(zone="under_sill_left", rust="perforated").causes(), ("sill_perforated",))
        self.assertEqual(UnderZone(zone="tunnel", rust="perforated").causes(), ())

    def test_the_schematic_says_every_zone_and_hatches_what_was_hidden(self):
        shown = {"tank": ZoneShown("hidden"), "tunnel": ZoneShown("found", ("rust", "repair"), grave=True)}
        svg = under_schematic(shown, "tank")
        ElementTree.fromstring(svg)
        self.assertEqual(svg.count("data-zone="), 23)
        whole = under_schematic(shown, separate_frame=True)
        self.assertEqual(whole.count("data-zone="), len(zones()))
        self.assertIn("tunnel and exhaust: rust, worked on", svg)
        self.assertIn("tank and straps, or pack: not visible", svg)
        self.assertEqual(svg.count("zone-sign"), 2)
        self.assertNotRegex(svg, r">[RDWML]( [RDWML])*<")

    def test_left_lies_below_as_on_the_shell_sheet_and_at_the_left_upright(self):
        def where(zone, upright):
            group = under_schematic({}, upright=upright).split(f'data-zone="{zone}"')[1].split("<rect ", 1)[1]
            return float(re.search(r'x="([-\d.]+)"', group)[1]), float(re.search(r' y="([-\d.]+)"', group)[1])

        (_, low), (_, high) = (where(f"under_sill_{side}", False) for side in ("left", "right"))
        self.assertGreater(low, high)
        (left, _), (right, _) = (where(f"under_sill_{side}", True) for side in ("left", "right"))
        self.assertLess(left, right)


class PipesAndExhaust(unittest.TestCase):
    def test_what_runs_through_a_zone_is_told(self):
        def words(**more):
            return [(one.words, one.consequence) for one in zone_found(UnderZone(zone="tunnel", **more))]

        self.assertEqual(words(pipes="as_made", exhaust="sound"), [])
        self.assertEqual(words(pipes="rusted"), [("pipes rusted", Consequence.SETTLE)])
        self.assertIn("rub through", words(pipes="loose")[0][0])
        self.assertIn("fumes can reach the cabin", words(exhaust="leaks")[0][0])


class Leaks(unittest.TestCase):
    def looks(self, *said, fluid="oil"):
        return [
            (NOON + timedelta(minutes=minutes), Leak(fluid=fluid, origin="sump", stage=stage, drops=drops))
            for minutes, stage, drops in said
        ]

    def test_one_look_asks_for_a_second(self):
        found = leak_found(self.looks((0, "seep", None)))
        self.assertEqual((found.finding.consequence, found.again, found.words), (Consequence.BUDGET, True, ""))
        self.assertFalse(leak_found(self.looks((0, "stain", None))).again)

    def test_two_looks_make_a_rate(self):
        found = leak_found(self.looks((0, "seep", None), (30, "drip", None)))
        self.assertEqual(
            (found.words, found.finding.consequence, found.again),
            (
                "from seep to drip in 30 min: 4.0 stages an hour",
                Consequence.SETTLE,
                False,
            ),  # two stages in half an hour
        )
        self.assertIn("2 drops a minute, then 6", leak_found(self.looks((0, "drip", 2), (20, "drip", 6))).words)
        self.assertIn("no more after", leak_found(self.looks((0, "seep", None), (20, "seep", None))).words)
        self.assertTrue(leak_found(self.looks((0, "seep", None), (2, "seep", None))).again)

    def test_what_was_done_in_between_weakens_it(self):
        twice = self.looks((0, "seep", None), (20, "seep", None))
        self.assertIn("wiped it, so it proves less", leak_found(twice, ["wiped it"]).words)
        self.assertNotIn("proves less", leak_found(twice).words)

    def test_our_own_doing_is_suspended_until_somebody_looked_again(self):
        once = self.looks((0, "drip", 4))
        found = leak_found(once, own=[True])
        self.assertEqual((found.suspended, found.finding.consequence, found.again), (True, Consequence.SETTLE, True))
        later = leak_found(self.looks((0, "drip", 4), (20, "seep", None)), own=[True, False])
        self.assertEqual((later.suspended, later.stage), (False, "seep"))
        self.assertEqual(linked(found, {"engine_oil": Fluid(fluid="engine_oil", level="low")}, {}, False), found)

    def test_a_leak_is_linked_to_what_it_explains(self):
        seep = leak_found(self.looks((0, "seep", None)))
        low = {"engine_oil": Fluid(fluid="engine_oil", level="low")}
        told = linked(seep, low, {}, False)
        self.assertEqual(
            (told.finding.consequence, told.linked), (Consequence.SETTLE, ("its level is low: it is lost here",))
        )
        self.assertEqual(linked(seep, {"coolant": Fluid(fluid="coolant", level="low")}, {}, False), seep)
        brake = leak_found(self.looks((0, "weep", None), fluid="brake"))
        grades = {"brake_hose:front_left": Grade.FAILED, "brake_pipes": Grade.WORN}
        self.assertEqual(linked(brake, {}, grades, True).linked,
                         ("a brake hose is worn", "brake pipes rust", "the pedal is low"))  # fmt: skip
        coolant = leak_found(self.looks((0, "weep", None), fluid="coolant"))
        self.assertEqual(linked(coolant, {}, {"coolant_hoses": Grade.WORN}, False).linked, ("coolant hoses are worn",))

    def test_water_is_normal_and_fuel_stands_down(self):
        self.assertEqual(leak_found(self.looks((0, "drip", 3), fluid="water")).words, "normal")
        self.assertEqual(Leak(fluid="fuel", origin="pump", stage="seep").causes(), ("fuel_wet",))
        self.assertEqual(Leak(fluid="fuel", origin="pump", stage="stain").causes(), ())
        self.assertEqual(
            leak_found(self.looks((0, "seep", None), fluid="fuel")).finding.consequence, Consequence.SETTLE
        )
