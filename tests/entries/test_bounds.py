import json
import unittest
from datetime import UTC, datetime
from uuid import uuid4

from pydantic import ValidationError

from hakutsu.entries import Draft, EntryError, kinds
from hakutsu.entries.bounds import MOST_ITEMS, MOST_TEXT, Unstorable, check_storable
from tests.builders import NOON
from tests.entries.test_entries import SAMPLES

# Held against tables or lists of their own when they are read.
LOOKED_UP = ("inspection.settings.", "day.arrival.dirt")


def unbounded(schema, defs, path):
    """Paths of texts, numbers and lists in a JSON Schema that may be of any size."""
    if "$ref" in schema:
        return unbounded(defs[schema["$ref"].split("/")[-1]], defs, path)
    either = schema.get("anyOf", ())
    if any(one.get("type") == "number" for one in either):  # an amount, which may come as text too
        either = [one for one in either if one.get("type") != "string"]
    found = [one for inner in (*either, *schema.get("allOf", ())) for one in unbounded(inner, defs, path)]
    if endless(schema):
        found.append(path)
    inner = (schema.get("items"), *schema.get("prefixItems", ()))
    found += [one for item in inner if isinstance(item, dict) for one in unbounded(item, defs, f"{path}[]")]
    fields = schema.get("properties", {})
    return found + [one for name, inner in fields.items() for one in unbounded(inner, defs, f"{path}.{name}")]


def endless(schema):
    """Whether a text, number or list has no end by itself."""
    if "enum" in schema or "const" in schema:
        return False
    pattern = schema.get("pattern", "")
    match schema.get("type"):
        case "string":
            fixed = schema.get("format") in ("uuid", "date-time", "date") or "{" in pattern or pattern.startswith("^(")
            return not fixed and "maxLength" not in schema
        case "number" | "integer":
            ends = [{f"{end}imum", f"exclusive{end.title()}imum"} & set(schema) for end in ("min", "max")]
            return not all(ends)
        case "array":
            return "maxItems" not in schema
    return False


class EveryField(unittest.TestCase):
    def test_every_text_number_and_list_of_every_kind_has_an_end(self):
        found = []
        for kind in kinds().values():
            if not kind.name.startswith("test."):
                schema = kind.model.model_json_schema()
                found += unbounded(schema, schema.get("$defs", {}), kind.name)
        schema = Draft.model_json_schema()
        schema["properties"].pop("body")
        found += unbounded(schema, schema.get("$defs", {}), "draft")
        self.assertEqual([path for path in found if not path.startswith(LOOKED_UP)], [])

    def test_such_a_field_would_be_found(self):
        self.assertEqual(unbounded({"type": "object", "properties": {"a": {"type": "string"}}}, {}, "x"), ["x.a"])
        self.assertEqual(unbounded({"type": "number", "minimum": 0}, {}, "x"), ["x"])


class Storable(unittest.TestCase):
    def refused(self, body, kind="general.seen"):
        draft = Draft(id=uuid4(), at=NOON, kind=kind, body=body)
        with self.assertRaises(EntryError) as caught:
            draft.check()
        return caught.exception

    def test_what_is_no_finite_number_is_refused_at_its_field(self):
        for value in (float("inf"), float("-inf"), float("nan"), json.loads("1e400")):
            error = self.refused({"text": "x", "low": 1, "high": value})
            self.assertEqual((error.field, "no number" in error.message), ("high", True))
        error = self.refused({"rpm": [700, float("nan")]}, "engine.idle")
        self.assertEqual(error.field, "rpm")

    def test_what_would_be_read_back_otherwise_is_refused(self):
        for text in ("half \ud800", "nul \x00", "x" * (MOST_TEXT + 1)):
            with self.subTest(text[:6]):
                self.assertEqual(self.refused({"text": text}).field, "text")
        self.assertEqual(self.refused({"text": "x", "low": 10**400, "high": 10**400}).field, "low")
        deep = []
        for _ in range(50):
            deep = [deep]
        self.assertIn("deep", self.refused({"text": deep}).message)
        with self.assertRaises(Unstorable):
            check_storable(["x"] * (MOST_ITEMS + 1))

    def test_an_entry_as_a_whole_is_bounded(self):
        idle = {"rpm": [700.123456789] * 4000, "hertz": 4}
        self.assertTrue(Draft(id=uuid4(), at=NOON, kind="engine.idle", body=idle).check())
        long = {f"field{i}": "x" * 3000 for i in range(100)}
        self.assertIn("at most", self.refused(long).message)

    def test_what_is_checked_is_what_is_stored(self):
        draft = Draft(id=uuid4(), at=NOON, kind="general.seen", body={"text": "salt – \u00e9"}, place="roof")
        stored = draft.check()
        self.assertEqual(
            stored, json.dumps(json.loads(stored), sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        )
        self.assertEqual(Draft.model_validate_json(stored), draft)


class Times(unittest.TestCase):
    def test_times_that_no_zone_could_show_are_refused(self):
        for at in ("0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00", "1969-12-31T23:00:00Z", 10**30):
            with self.subTest(at), self.assertRaises(ValidationError) as caught:
                Draft(id=uuid4(), at=at, kind="general.seen")
            self.assertEqual(caught.exception.errors()[0]["loc"], ("at",))
        begins = {**SAMPLES["day.conditions/1"], "begins": "0001-01-01T00:00:00+14:00"}
        with self.assertRaises(EntryError) as refused:
            Draft(id=uuid4(), at=NOON, kind="day.conditions", body=begins).check()
        self.assertEqual(refused.exception.field, "begins")

    def test_a_date_before_motor_vehicles_or_long_after_us_is_refused(self):
        for kind, body, field in (
            ("inspection.mechanics", {"mechanics": {"first_used": "0001-01-01"}}, "mechanics.first_used"),
            ("inspection.mechanics", {"mechanics": {"first_used": "9999-12-31"}}, "mechanics.first_used"),
            ("life.proof", {"part": "tyres", "when": "0000-05", "proof": "x"}, "when"),
        ):
            with self.subTest(body), self.assertRaises(EntryError) as refused:
                Draft(id=uuid4(), at=NOON, kind=kind, body=body).check()
            self.assertEqual(refused.exception.field, field)

    def test_times_are_kept_in_utc(self):
        at = datetime.fromisoformat("2026-11-20T23:30:00+05:30")
        self.assertIn('"2026-11-20T18:00:00+00:00"', Draft(id=uuid4(), at=at, kind="general.seen").model_dump_json())
        self.assertEqual(at.astimezone(UTC).hour, 18)


class Envelope(unittest.TestCase):
    def test_more_pictures_or_a_longer_place_than_fit_are_refused(self):
        for more, field in (({"pictures": [uuid4()] * 5000}, "pictures"), ({"place": "x" * 61}, "place")):
            with self.assertRaises(ValidationError) as caught:
                Draft(id=uuid4(), at=NOON, kind="general.seen", **more)
            self.assertEqual(caught.exception.errors()[0]["loc"], (field,))

    def test_a_place_that_is_on_no_vehicle_is_refused(self):
        with self.assertRaises(EntryError) as caught:
            Draft(id=uuid4(), at=NOON, kind="general.seen", body={"text": "x"}, place="keel").check()
        self.assertEqual(caught.exception.field, "place")
