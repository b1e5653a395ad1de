import unittest
from itertools import combinations

from hakutsu.core.film import NextSpot
from hakutsu.figures.blemishes import Mark
from hakutsu.figures.placing import Box, Room, beside, inside, nearby
from hakutsu.figures.sheet_layout import TYPE_CM, UPRIGHT_TYPE_CM, lay_out
from hakutsu.figures.shell_sheet import turned
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Unit
from tests.builders import readings
from tests.figures.test_shell_sheet import KEYS, PATCHES

CODES = {key: panels()[key].code for key in KEYS}
GRID = [(u / 10, v / 10) for u in (1, 3, 5, 7, 9) for v in (2, 5, 8)]


class Boxes(unittest.TestCase):
    def test_sharing_an_edge_is_no_meeting(self):
        self.assertFalse(Box(0, 0, 10, 10).meets(Box(10, 0, 20, 10)))
        self.assertTrue(Box(0, 0, 10, 10).meets(Box(9.9, 9.9, 20, 20)))

    def test_inside_whichever_way_the_corners_run(self):
        square = [(0, 0), (20, 0), (20, 20), (0, 20)]
        for corners in (square, square[::-1]):
            self.assertTrue(inside(Box(0, 0, 20, 20), corners))
            self.assertFalse(inside(Box(-1, 0, 5, 5), corners))
            self.assertTrue(inside(Box(-1, 0, 5, 5), corners, slack=1.5))

    def test_a_box_across_cells_is_found_from_each(self):
        room = Room()
        room.take(Box(-30, -30, 60, 60))
        self.assertFalse(room.free(Box(50, 50, 52, 52)))
        self.assertEqual(room.meetings(Box(-29, -29, 59, 59)), 1)
        self.assertTrue(room.free(Box(60, 60, 70, 70)))

    def test_a_number_goes_where_it_belongs_or_as_near_as_there_is_room(self):
        room, box = Room(), Box.around(0, 0, 10, 6)
        self.assertEqual(room.first(nearby(box)), box)
        second = room.first(nearby(box))
        self.assertFalse(second.meets(box))
        self.assertIsNone(room.first([box]))

    def test_a_line_is_taken_from_end_to_end(self):
        room = Room()
        room.take_line((0, 0), (50, 0), 2)
        self.assertFalse(any(room.free(Box.around(x, 0, 1, 1)) for x in range(51)))
        self.assertTrue(room.free(Box.around(25, 4, 2, 2)))

    def test_a_number_beside_its_sign_never_lies_on_it(self):
        room = Room()
        sign = room.take(Box.around(0, 0, 7, 7))
        for _ in range(5):
            self.assertFalse(room.first(beside(sign, 6, 8)).meets(sign))

    def test_a_panel_full_of_marks_is_numbered_as_far_as_there_is_room_and_quickly(self):
        marks = [Mark(i, "bonnet", "chip", [((i % 50) / 50, (i // 50) / 40)], "chip") for i in range(1, 2001)]
        layout = lay_out({}, CODES, PATCHES, Unit.UM, marks=marks)
        numbered = sum(box is not None for _, box in layout.marks)
        self.assertGreater(numbered, 20)
        self.assertEqual(numbered + layout.more_marks["bonnet"][0], 2000)


class NothingCoversANumber(unittest.TestCase):
    """Crowded sheets of both ways up: every code, glyph, reading, count and number of a mark has its own room."""

    def crowded(self, patches, size):
        read = {key: [o for u, v in GRID for o in readings(key, 100 + 7 * len(key), u=u, v=v)] for key in KEYS}
        marks = [
            Mark(1, "roof", "dent", [(0.5, 0.5)], "dent"),
            Mark(2, "front_door_left", "scratch", [(0.1, 0.5), (0.9, 0.45)], "scratch"),
            Mark(3, "rear_bumper", "scuff", [(0.2, 0.2), (0.8, 0.2), (0.8, 0.4)], "scuff"),
            Mark(4, "front_door_left", "chip", [(0.5, 0.5)], "chip"),
        ]
        spot = NextSpot("bonnet", 0.5, 0.5, 0.3, 0.2)
        return read, lay_out(read, CODES, patches, Unit.UM, marks=marks, spot=spot, size=size)

    def test_no_two_words_share_a_place_and_what_is_left_out_is_counted(self):
        upright = {key: turned(one) for key, one in PATCHES.items()}
        for way, patches, size in (("wide", PATCHES, TYPE_CM), ("upright", upright, UPRIGHT_TYPE_CM)):
            read, layout = self.crowded(patches, size)
            boxes = [("code " + key, one.code) for key, one in layout.labels.items()]
            boxes += [("glyph " + key, one.glyph) for key, one in layout.labels.items()]
            boxes += [(f"{key} {one.said}", one.box) for key, many in layout.numbers.items() for one in many]
            boxes += [("more " + key, box) for key, (_, box) in layout.more.items()]
            boxes += [(f"mark {sign.mark.number}", box) for sign, box in layout.marks if box]
            boxes += [("marks " + key, box) for key, (_, box) in layout.more_marks.items()]
            covered = [(a, b) for (a, one), (b, other) in combinations(boxes, 2) if one.meets(other)]
            self.assertEqual(covered, [], way)
            for key, taken in read.items():
                left = layout.more.get(key, (0, None))[0]
                self.assertEqual(len(layout.numbers[key]) + left, len(taken), (way, key))

    def test_what_stands_out_most_is_kept(self):
        read = {"b_pillar_left": [o for u, v in GRID for o in readings("b_pillar_left", 110, u=u, v=v)]}
        read["b_pillar_left"] += readings("b_pillar_left", 640, u=0.5, v=0.5)
        layout = lay_out(read, CODES, PATCHES, Unit.UM, baseline_um=112)
        self.assertIn("640", [one.said for one in layout.numbers["b_pillar_left"]])
        self.assertGreater(layout.more["b_pillar_left"][0], 0)

    def test_upright_has_the_nose_above_and_the_left_at_the_left(self):
        _, nose = turned(PATCHES["front_bumper"]).at(0.5, 0.5)
        _, tail = turned(PATCHES["rear_bumper"]).at(0.5, 0.5)
        left, _ = turned(PATCHES["front_door_left"]).at(0.5, 0.5)
        right, _ = turned(PATCHES["front_door_right"]).at(0.5, 0.5)
        self.assertLess(nose, tail)
        self.assertLess(left, right)
