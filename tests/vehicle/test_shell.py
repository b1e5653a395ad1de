import unittest
from itertools import combinations

from hakutsu.vehicle.panels import body_styles, panels, walk_order
from hakutsu.vehicle.shell import neighbours, shell

BODIES = [(key, doors) for key, style in body_styles().items() for doors in style.doors]


def patches(style="hatch", doors=5, *more):
    return shell(style, doors, (*walk_order(style, doors), *more))


class EveryBody(unittest.TestCase):
    def test_every_panel_lies_on_the_sheet_and_touches_another(self):
        for body in BODIES:
            with self.subTest(body):
                laid = patches(*body)
                self.assertEqual(list(laid), walk_order(*body))
                self.assertTrue(all(patch.joined for patch in laid.values()))
                self.assertTrue(all(neighbours(laid).values()))

    def test_left_and_right_mirror_each_other(self):
        for body in BODIES:
            for key, patch in patches(*body).items():
                if panels()[key].side == "left":
                    twin = patches(*body)[panels()[key].mirror]
                    if panels()[key].plane == "flank":
                        self.assertEqual([(x, -y) for x, y in patch.corners], list(twin.corners))
                    self.assertAlmostEqual(patch.area_cm2, twin.area_cm2)

    def test_patches_do_not_lie_on_each_other(self):
        for body in BODIES:
            for one, other in combinations(patches(*body).values(), 2):
                with self.subTest(body, panels=(one.panel, other.panel)):
                    inner = [one.at(u / 10, v / 10) for u in range(1, 10) for v in range(1, 10)]
                    self.assertFalse(any(_inside(point, other.corners) for point in inner))

    def test_sizes_are_those_of_vehicles(self):
        for body in BODIES:
            for key, patch in patches(*body).items():
                large = panels()[key].size == "large"
                self.assertTrue(1500 <= patch.area_cm2 <= 45_000 if large else 500 <= patch.area_cm2 <= 6_000, key)


def _inside(point, corners):
    signs = []
    for a, b in zip(corners, (*corners[1:], corners[0]), strict=True):
        signs.append((b[0] - a[0]) * (point[1] - a[1]) - (b[1] - a[1]) * (point[0] - a[0]))
    return min(signs) > 1 or max(signs) < -1


class Places(unittest.TestCase):
    def test_flanks_run_front_to_rear_and_from_the_lower_edge_up(self):
        door = patches()["front_door_left"]
        (x_front, low), (x_rear, _), (_, high) = door.at(0, 0), door.at(1, 0), door.at(1, 1)
        self.assertLess(x_front, x_rear)
        self.assertGreater(low, high)  # the left flank lies below the centre line, its lower edge outermost

    def test_lids_run_from_the_vehicles_left_to_right_and_front_to_rear(self):
        bonnet = patches()["bonnet"]
        self.assertGreater(bonnet.at(0, 0)[1], bonnet.at(1, 0)[1])
        self.assertLess(bonnet.at(0, 0)[0], bonnet.at(0, 1)[0])

    def test_a_tailgate_hangs_from_the_roof(self):
        laid = patches()
        self.assertEqual(laid["tailgate"].at(0.5, 1)[0], laid["roof"].at(0.5, 1)[0])

    def test_area_of_a_rectangle(self):
        self.assertEqual(patches()["front_door_left"].area_cm2, 100 * 62)

    def test_seams(self):
        near = neighbours(patches())
        self.assertLessEqual({"bonnet", "front_door_left", "a_pillar_left"}, set(near["front_wing_left"]))
        self.assertNotIn("front_wing_right", near["front_wing_left"])
        self.assertNotIn("rear_door_left", near["front_wing_left"])

    def test_a_panel_the_body_lacks_is_laid_beside_the_skin(self):
        laid = patches("hatch", 5, "boot_lid", "front_valance")
        self.assertFalse(laid["boot_lid"].joined)
        self.assertEqual(neighbours(laid)["boot_lid"], ())
        lowest = max(y for key in walk_order("hatch", 5) for _, y in laid[key].corners)
        self.assertGreater(min(y for _, y in laid["boot_lid"].corners), lowest)
