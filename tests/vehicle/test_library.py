"""A library file: what it holds, what a kind takes over, and every fault named."""

import json
import unittest

from hakutsu.demo.building import demo_library
from hakutsu.vehicle.library import BadLibrary, LibraryFile, library_schema, read_library


def faults(said):
    try:
        read_library(said if isinstance(said, bytes) else json.dumps(said).encode())
    except BadLibrary as error:
        return error.faults
    return []


def variants(**rows):
    return {"version": 1, "variants": {key: {"name": key, **row} for key, row in rows.items()}}


class Reading(unittest.TestCase):
    def test_a_kind_takes_over_what_it_does_not_say_itself(self):
        plan = [{"item": "engine_oil", "km": 30000}, {"item": "coolant", "months": 60}]
        told = read_library(json.dumps(variants(
            base={"make": "Velmora", "plan": plan, "colours": {"HG": "grey"}},
            kind={"of": "base", "plan": [{"item": "engine_oil", "km": 15000}]},
        )).encode())  # fmt: skip
        whole = told.whole("kind")
        self.assertEqual((whole.make, whole.colours), ("Velmora", {"HG": "grey"}))
        self.assertEqual({row.item: row.km for row in whole.plan}, {"engine_oil": 15000, "coolant": None})

    def test_body_and_year_that_fit(self):
        row = demo_library().whole("strand_hybrid_estate")
        told = [row.fits("estate", 2019), row.fits("estate", 2023), row.fits("estate", None), row.fits("saloon", 2019)]
        self.assertEqual([*told, row.fits("estate", 2024)], [True, True, True, False, False])

    def test_a_loop_is_named(self):
        found = faults(variants(a={"of": "b"}, b={"of": "c"}, c={"of": "a"}))
        self.assertTrue(any("a loop: a is a kind of b is a kind of c is a kind of a" in one for one in found), found)
        self.assertTrue(any("a loop: a is a kind of a" in one for one in faults(variants(a={"of": "a"}))))
        self.assertTrue(any("not in the file" in one for one in faults(variants(a={"of": "z"}))))

    def test_another_version_is_refused(self):
        self.assertTrue(any("version 2 is not known here" in one for one in faults({"version": 2, "variants": {}})))

    def test_every_fault_is_named_with_where_it_stands(self):
        found = faults(variants(
            a={"plan": [{"item": "engine_oil"}], "features": [{"key": "X", "name": "x", "expected": "y"}], "wings": 2},
        ))  # fmt: skip
        self.assertTrue(any("engine_oil has no interval" in one for one in found), found)
        self.assertTrue(any("features.0.key" in one for one in found), found)
        self.assertTrue(any("wings" in one for one in found), found)

    def test_what_is_no_file_of_this_kind(self):
        for said in (b"", b"[]", b"{", b"\xff\xfe", b"[" * 100_000, b'"text"'):
            self.assertTrue(faults(said), said[:10])
        self.assertTrue(faults(b" " * 3_000_000))

    def test_the_demos_library_is_one_and_survives_a_round(self):
        told = demo_library()
        again = read_library(told.model_dump_json().encode())
        self.assertEqual(told, again)
        self.assertGreater(len(told.whole("strand_hybrid_estate").plan), 4)
        self.assertEqual(library_schema()["title"], LibraryFile.__name__)
