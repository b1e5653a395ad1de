from hakutsu.entries.under import UnderZone
from tests.inspection import InspectionCase


class Zones(InspectionCase):
    def zone(self, **said):
        return self.write("under.zone", UnderZone(zone="rear_floor_left", **said))

    def told(self):
        return self.dossier().under.zones["rear_floor_left"].body

    def test_a_later_look_adds_to_what_was_told_and_takes_the_place_of_what_it_speaks_of(self):
        self.zone(exhaust="patched", rust="surface")
        self.zone(clear=("damage",))
        self.assertEqual((self.told().exhaust.value, self.told().rust.value), ("patched", "surface"))
        self.zone(clear=("rust",))
        self.assertEqual((self.told().exhaust.value, self.told().rust), ("patched", None))
        self.assertEqual({one.value for one in self.told().clear}, {"rust", "damage"})
        self.zone(rust="scale", damage=("dent",))
        self.assertEqual(self.told().clear, ())

    def test_hidden_takes_the_place_of_all_and_seen_again_that_of_hidden(self):
        self.zone(repair=("weld",))
        self.zone(not_visible="undertray")
        self.assertEqual(self.told().repair, ())
        self.zone(clear=("rust",))
        self.assertEqual(self.told().not_visible, "")

    def test_a_finding_rests_on_every_look_that_told_something(self):
        first, second = self.zone(exhaust="leaks"), self.zone(rust="pitted")
        self.assertEqual([one.entry.id for one in self.dossier().under.looks["rear_floor_left"]], [first, second])
