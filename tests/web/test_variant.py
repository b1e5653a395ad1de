"""The variant and the library over HTTP."""

import json
from io import BytesIO

from hakutsu.demo.building import demo_library
from hakutsu.entries.variant import FeatureSeen, VariantTaken, WeakSeen
from hakutsu.reckoning.variant import VariantReckoned
from hakutsu.vehicle.library import FeatureRow, WeakRow
from tests.web.case import RoundCase

FEATURES = [
    {"key": "stamp", "name": "engine stamp", "expected": "H18E", "weight": "stamp"},
    {"key": "badge", "name": "badge", "expected": "h", "weight": "badge"},
]
ONE = {"version": 1, "variants": {"strand": {
    "name": "Velmora Strand", "features": FEATURES, "weak": [{"key": "drain", "name": "drain blocks", "place": "boot"}],
    "plan": [{"item": "engine_oil", "km": 30000, "months": 24}], "codes": {"P0420": "often the sensor first"},
    "colours": {"HG 31": "harbour grey"}, "letters": {"castings": "ABC:1-3"},
}}}  # fmt: skip


class Library(RoundCase):
    def send(self, data):
        files = {"file": ("library.json", BytesIO(data), "application/json")}
        return self.client.post("/library", files=files)

    def test_a_file_goes_in_and_comes_out_as_it_was(self):
        self.assertIn("Empty.", self.client.get("/library").text)
        self.assertIn("1 variant taken in", self.send(json.dumps(ONE).encode()).text)
        out = self.client.get("/library/file.json")
        self.assertEqual(out.json()["version"], 1)
        self.assertEqual(self.send(out.content).status_code, 200)
        self.assertEqual(self.client.get("/library/file.json").json(), out.json())
        self.assertEqual(self.client.get("/library/schema.json").json()["title"], "LibraryFile")

    def test_what_is_wrong_is_named_and_nothing_is_lost(self):
        self.send(json.dumps(ONE).encode())
        for said, words in (
            ({"version": 7}, "version 7"),
            ({"version": 1, "variants": {"a": {"name": "a", "of": "a"}}}, "a loop"),
        ):
            answer = self.send(json.dumps(said).encode())
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.text)
        self.assertEqual(self.client.post("/library").status_code, 422)
        self.assertIn("Velmora Strand", self.client.get("/library").text)

    def test_items_nobody_knows_are_said_to_be_left_out(self):
        row = {"name": "a", "plan": [{"item": "muffler_bearing", "km": 10}]}
        answer = self.send(json.dumps({"version": 1, "variants": {"a": row}}).encode())
        self.assertIn("nobody here knows them: muffler_bearing", answer.text)
        self.client.post(f"{self.here}/variant/taken", data={"key": "a"})
        self.assertIn("By usual intervals", self.client.get(f"{self.here}/service/plan").text)

    def test_a_variant_others_are_kinds_of_stays(self):
        self.client.app.state.desk.logbook.library.known = demo_library()
        self.client.post("/library/forgotten", data={"key": "strand"})
        self.client.post("/library/forgotten", data={"key": "fell"})
        self.assertEqual(
            {*self.client.get("/library/file.json").json()["variants"]}, {"strand", "strand_hybrid_estate"}
        )


class Variant(RoundCase):
    def setUp(self):
        super().setUp()
        self.client.post("/library", files={"file": ("l.json", BytesIO(json.dumps(ONE).encode()), "application/json")})

    def reckoned(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def take(self):
        return self.client.post(f"{self.here}/variant/taken", data={"key": "strand"})

    def test_taking_one_brings_features_weak_points_plan_and_what_stations_offer(self):
        self.assertIn("Choose from the library", self.client.get(f"{self.here}/variant").text)
        text = self.take().text
        for words in ("engine stamp", "drain blocks", "Would tell most now: <strong>engine stamp"):
            self.assertIn(words.casefold(), text.casefold())
        self.assertIn("By the maker’s plan", self.client.get(f"{self.here}/service/plan").text)
        self.assertIn('<option value="HG 31">', self.client.get(f"{self.here}/papers/identity").text)
        self.assertIn('<option value="ABC:1-3">', self.client.get(f"{self.here}/papers/dates").text)
        self.assertEqual(self.client.post(f"{self.here}/variant/taken", data={"key": "none"}).status_code, 404)

    def test_disagreeing_numbers_reach_the_sheet_and_the_report(self):
        self.take()
        self.assertNotIn("Said to be", self.client.get(f"{self.here}/report").text)
        self.write("variant.feature", FeatureSeen(feature="stamp", result="disagrees", found="H15B"))
        self.assertIn("features disagree with Velmora Strand", self.client.get(f"{self.here}/life/sheet").text)
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("engine stamp: H15B, expected H18E", report)
        self.assertIn("Not looked at: badge", report)

    def test_a_weak_point_that_has_come_lies_at_its_place(self):
        self.take()
        self.write("variant.weak", WeakSeen(weak="drain", result="found"))
        one = next(iter(self.reckoned().findings_of("variant")))
        self.assertEqual((one.code, one.subject), ("variant.weak_found", "boot"))
        self.assertIn("drain blocks", self.client.get(f"{self.here}/report").text)

    def test_a_weak_point_is_asked_for_at_its_place(self):
        self.take()
        text = self.client.get(f"{self.here}/place/boot").text
        self.assertIn("Known weak point: drain blocks", text)
        self.write("variant.weak", WeakSeen(weak="drain", result="none"), place="boot")
        self.assertIn("looked, not found", self.client.get(f"{self.here}/place/boot").text)
        self.assertNotIn("drain blocks", self.client.get(f"{self.here}/place/bay").text)

    def test_what_was_taken_stays_when_the_library_changes(self):
        self.take()
        self.client.post("/library/forgotten", data={"key": "strand"})
        text = self.client.get(f"{self.here}/variant").text
        self.assertIn("engine stamp", text.casefold())
        self.assertIn("the library is empty", text)

    def test_a_feature_nobody_listed_changes_nothing(self):
        body = VariantTaken(key="x", name="x", features=[FeatureRow(**FEATURES[0])], weak=[WeakRow(key="a", name="a")])
        self.write("variant.taken", body)
        self.write("variant.feature", FeatureSeen(feature="other", result="disagrees"))
        self.assertAlmostEqual(self.reckoned().station(VariantReckoned).tally.chance, 0.9)
