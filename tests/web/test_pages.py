import re
from unittest import mock
from uuid import uuid4

from hakutsu.demo import add_demo
from hakutsu.demo.building import CARS, demo_id
from tests.builders import opened, reading
from tests.exchange.test_film_csv import HEADER
from tests.web.case import WebCase

ROWS = HEADER + "s,roof,,,118,um,ok,steel,factory,1500,1\ns,bonnet,,,121,um,ok,steel,factory,1500,1\n"


class EveryPage(WebCase):
    def pages(self):
        add_demo(self.logbook)
        yield from ("/", "/account", "/search", "/search?q=film", "/inspections/new")
        for car in CARS:
            here = f"/inspections/{demo_id(car)}"
            yield from (
                f"{here}/{name}" for name in ("film", "film/import", "vehicle", "logbook", "report", "film.csv")
            )

    def test_it_answers_with_the_security_headers_and_nothing_inline(self):
        for path in self.pages():
            with self.subTest(path):
                answer = self.client.get(path)
                self.assertEqual(answer.status_code, 200)
                self.assertIn("default-src 'none'", answer.headers["content-security-policy"])
                self.assertNotRegex(answer.text, r"<script>|<script [^>]*>[^<]|\sstyle=\"|\son\w+=\"|<style")
                self.assertNotRegex(answer.text, r"https?://(?!www\.w3\.org)")

    def test_an_empty_day_says_how_to_begin(self):
        text = self.client.get("/").text
        for door in ("Your name, units and region", "Look round a half-done example", "Begin an inspection"):
            self.assertIn(door, text)

    def test_a_wrong_address_gives_a_helpful_page(self):
        for path in ("/nowhere", f"/inspections/{uuid4()}/film", "/inspections/cut-sho/film"):
            with self.subTest(path):
                answer = self.client.get(path)
                self.assertEqual(answer.status_code, 404)
                self.assertIn("To the day", answer.text)

    def test_names_are_escaped(self):
        inspection = opened(self.logbook, name="<script>alert(1)</script>")
        for name in ("film", "vehicle", "logbook", "report"):
            self.assertNotIn("<script>alert", self.client.get(f"/inspections/{inspection}/{name}").text)

    def test_another_site_can_neither_post_nor_be_the_host(self):
        inspection = opened(self.logbook)
        answer = self.client.post(f"/inspections/{inspection}/stage", headers={"origin": "http://elsewhere.example"})
        self.assertEqual(answer.status_code, 403)
        self.assertEqual(self.client.get("/", headers={"host": "elsewhere.example"}).status_code, 400)

    def test_the_account_name_signs_and_a_bad_one_is_refused_in_place(self):
        self.assertIn("Give a name", self.client.post("/account", data={"name": "  "}).text)
        self.assertIn("At most 60", self.client.post("/account", data={"name": "x" * 61}).text)
        self.client.post("/account", data={"name": "Isla  Varnock"})
        self.assertEqual(self.logbook.account, "Isla Varnock")

    def test_units_region_and_clock_are_asked_once_and_nothing_is_taken_for_granted(self):
        form = {"name": "Isla Varnock", "writing": "american", "rules": "orrin", "zone": "Atlantic/Faroe"}
        for wrong, words in (
            ({"writing": ""}, "how you write"),
            ({"rules": "x"}, "whose rules"),
            ({"zone": "here"}, "time zone"),
        ):
            answer = self.client.post("/account", data=form | wrong)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.text)
            self.assertFalse(self.logbook.library.asked)
        self.client.post("/account", data=form)
        settings = self.logbook.library.settings
        told = (settings.distance, settings.depth, settings.rules, settings.zone)
        self.assertEqual(told, ("mi", "in32", "orrin", "Atlantic/Faroe"))
        self.assertNotIn('name="zone"', self.client.get("/account").text)

    def test_the_example_is_half_done_and_opened_once(self):
        where = self.client.post("/example", follow_redirects=False).headers["location"]
        text = self.client.get(where).text
        self.assertIn("Known so far", text)
        self.assertIn("Next", text)
        self.assertEqual(self.client.post("/example", follow_redirects=False).headers["location"], where)
        self.assertEqual(len(self.logbook.inspections()), 1)


class Entries(WebCase):
    def test_acknowledged_and_refused_come_back_and_fragments_follow(self):
        inspection = opened(self.logbook)
        good, bad = reading("roof", 112), reading("keel", 112)
        answer = self.post(inspection, good, bad).json()
        self.assertEqual(answer["acknowledged"], [str(good.id)])
        self.assertEqual([(r["id"], r["field"]) for r in answer["refused"]], [(str(bad.id), "place")])
        self.assertNotIn("fragments", answer)
        parts = self.client.get(f"/inspections/{inspection}/fragments?view=film&panel=roof").json()
        self.assertEqual(
            set(parts), {"drawing", "panels", "panel", "glance", "left", "story", "verified", "rail", "next"}
        )
        self.assertIn("112", parts["panel"])

    def test_what_is_no_entry_is_422_and_no_inspection_404(self):
        inspection = opened(self.logbook)
        headers = {"accept": "application/json"}
        for body in ({"entries": [{"kind": "x"}]}, {"entries": "x"}, {}):
            answer = self.client.post(f"/inspections/{inspection}/entries", json=body, headers=headers)
            self.assertEqual(answer.status_code, 422)
            self.assertTrue(answer.json()["message"])
        self.assertEqual(self.post(uuid4(), reading("roof", 112)).status_code, 404)

    def test_the_json_twin_marks_struck_entries(self):
        inspection = opened(self.logbook)
        first = reading("roof", 112)
        self.post(inspection, first, reading("roof", 113, strikes=first.id))
        self.assertEqual([e["struck"] for e in self.film_readings(inspection)], [True, False])

    def test_the_exported_survey_leaves_edge_readings_out(self):
        inspection = opened(self.logbook)
        self.post(inspection, reading("roof", 112), reading("roof", 60, edge=True))
        rows = self.client.get(f"/inspections/{inspection}/film.csv").text.splitlines()
        self.assertEqual([row.split(",")[4] for row in rows[1:]], ["112"])

    def test_too_large_a_body_is_refused(self):
        answer = self.client.post("/account", content=b"x" * 9_000_000)
        self.assertEqual(answer.status_code, 413)


class VehicleForm(WebCase):
    FORM = {"name": "Skarrow Fell", "registration": "", "colour": "", "finish": "factory", "body_style": "suv",
            "doors": "3", "steering": "right", "buyer": "", "use": "", "taste": "work", "km_per_year": "4 000",
            "protocol": "quick"}  # fmt: skip

    def create(self, **more):
        return self.client.post(
            "/inspections/new", data={**self.FORM, "id": str(uuid4()), **more}, follow_redirects=False
        )

    def test_a_new_inspection_opens_at_its_key_facts(self):
        answer = self.create()
        self.assertEqual(answer.status_code, 303)
        page = self.client.get(answer.headers["location"]).text
        self.assertIn("Skarrow Fell", page)
        self.assertIn('<h2 class="text-xl font-bold">Key facts</h2>', page)

    def test_sending_the_form_twice_opens_one(self):
        same = str(uuid4())
        self.create(id=same)
        self.create(id=same)
        self.assertEqual(len(self.logbook.inspections()), 1)

    def test_every_fault_stands_at_its_field_and_nothing_typed_is_lost(self):
        cases = (
            ({"name": ""}, "Give a name"),
            ({"km_per_year": "many"}, "whole number"),
            ({"km_per_year": "-5"}, "whole number"),
            ({"asking_price": "12.500"}, "may be 12500 or 12.500"),
            ({"collect_by": "Friday"}, "Write a day"),
            ({"doors": "5", "body_style": "pickup"}, "Pick-up"),
            ({"name": "x" * 500}, "120"),
        )
        for wrong, words in cases:
            with self.subTest(wrong):
                answer = self.create(buyer="Ana Tressel", **wrong)
                self.assertEqual(answer.status_code, 422)
                self.assertIn('aria-invalid="true"', answer.text)
                self.assertIn(words, answer.text)
                self.assertIn("Ana Tressel", answer.text)
        self.assertEqual(self.logbook.inspections(), [])

    def edit(self, inspection, **more):
        page = self.client.get(f"/inspections/{inspection}/vehicle").text
        basis = re.search(r'name="basis" value="([^"]*)"', page)[1]
        data = {**self.FORM, "basis": basis, **more}
        return self.client.post(f"/inspections/{inspection}/vehicle", data=data, follow_redirects=False)

    def test_panels_can_be_edited_and_follow_a_new_body_style(self):
        inspection = self.create().headers["location"].split("/")[2]
        self.edit(inspection, panel_bonnet="aluminium", panel_roof="not_fitted", panel_scuttle="steel")
        page = self.client.get(f"/inspections/{inspection}/film").text
        self.assertNotIn('data-panel="roof"', page)
        self.assertIn('data-panel="scuttle"', page)
        self.edit(inspection, body_style="van", doors="5", panel_bonnet="aluminium")
        self.assertIn('data-panel="sliding_door_left"', self.client.get(f"/inspections/{inspection}/film").text)

    def test_an_older_window_is_asked_before_it_overwrites(self):
        inspection = self.create().headers["location"].split("/")[2]
        self.assertEqual(self.edit(inspection, colour="red").status_code, 303)
        stale = self.edit(inspection, colour="blue", basis="older")
        self.assertEqual(stale.status_code, 422)
        self.assertIn("another window", stale.text)
        self.assertIn('value="blue"', stale.text)

    def test_saving_without_a_change_writes_nothing(self):
        inspection = self.create().headers["location"].split("/")[2]
        before = self.logbook.count()
        self.edit(inspection)
        self.assertEqual(self.logbook.count(), before)

    def test_finished_and_opened_again(self):
        inspection = opened(self.logbook)
        self.client.post(f"/inspections/{inspection}/stage", data={"stage": "finished", "anyway": "yes"})
        self.assertIn(">Done<", self.client.get("/").text)
        self.client.post(f"/inspections/{inspection}/stage", data={"stage": "begun"})
        self.assertNotIn(">Done<", self.client.get("/").text)


class ImportPage(WebCase):
    def setUp(self):
        super().setUp()
        self.inspection = opened(self.logbook)
        self.here = f"/inspections/{self.inspection}/film/import"

    def upload(self, text, name="a.csv"):
        return self.client.post(self.here, files={"file": (name, text.encode())})

    def store(self, preview, **form):
        return self.client.post(preview.url.path, data={"survey": "s", **form})

    def test_a_clean_file_is_previewed_then_stored(self):
        preview = self.upload(ROWS)
        self.assertIn("<strong>2</strong> good rows", preview.text)
        self.assertEqual(self.film_readings(self.inspection), [])
        self.store(preview)
        self.assertEqual(len(self.film_readings(self.inspection)), 2)

    def test_bad_rows_are_listed_and_nothing_is_stored_until_the_clean_part_is_accepted(self):
        preview = self.upload(ROWS + "s,hood,,,112,um,ok,steel,factory,,\n")
        self.assertIn("hood", preview.text)
        self.assertIn("bad rows", self.store(preview).text)
        self.assertEqual(self.film_readings(self.inspection), [])
        self.store(preview, accept_clean="yes")
        self.assertEqual(len(self.film_readings(self.inspection)), 2)

    def test_several_surveys_are_asked_about(self):
        preview = self.upload(ROWS + ROWS.removeprefix(HEADER).replace("s,", "t,", 2))
        self.assertIn("Which one?", preview.text)
        self.assertNotIn("good rows to store", preview.text)
        chosen = self.client.get(preview.url.path + "?survey=t")
        self.assertIn("good rows", chosen.text)

    def test_another_finish_is_asked_about(self):
        preview = self.upload(ROWS.replace("factory", "restored"))
        self.assertIn("Which holds?", preview.text)
        self.assertIn("Say which", self.store(preview).text)
        self.store(preview, finish="file")
        self.assertEqual(len(self.film_readings(self.inspection)), 2)

    def test_no_file_too_large_a_file_or_one_long_gone_say_so(self):
        self.assertIn("Pick a file", self.client.post(self.here).text)
        self.assertIn("larger than 5 MB", self.upload("x" * 5_300_000).text)
        self.assertEqual(self.client.get(f"{self.here}/{'0' * 64}").status_code, 404)
        self.assertEqual(self.client.get(f"{self.here}/..%2f..%2fhakutsu.sqlite").status_code, 404)


class Report(WebCase):
    def test_it_says_what_needs_words_and_what_is_missing(self):
        add_demo(self.logbook)
        text = self.client.get(f"/inspections/{demo_id('estate')}/report").text
        wanted = (
            "Rear quarter, right:</strong> consistent with filler",
            "C-pillar, left:</strong> could not be checked",
            "Front bumper:</strong> plastic",
            "Cautions",
            "84 readings on 18 panels",
        )
        for words in wanted:
            self.assertIn(words, text)

    def test_with_nothing_read_it_claims_nothing(self):
        text = self.client.get(f"/inspections/{opened(self.logbook)}/report").text
        self.assertIn("Nothing can be said", text)
        self.assertNotIn("consistent with the", text)


class Search(WebCase):
    def test_finds_links_and_says_when_nothing_is_found(self):
        add_demo(self.logbook)
        text = self.client.get("/search?q=estate").text
        self.assertRegex(text, r'href="/inspections/[-0-9a-f]{36}">Velmora Strand hybrid estate')
        self.assertNotIn("hatchback", text)
        self.assertIn("Nothing holds every word", self.client.get("/search?q=zeppelin").text)

    def test_what_was_typed_is_found_though_no_time_is_left_to_make_words(self):
        add_demo(self.logbook)
        with mock.patch("hakutsu.web.searching.SECONDS", -1.0):
            text = self.client.get("/search?q=estate").text
        self.assertIn("Velmora Strand hybrid estate, 2019", text)
        self.assertNotIn("Nothing holds every word", text)

    def test_too_much_is_said_at_the_field_and_script_is_escaped(self):
        answer = self.client.get("/search", params={"q": "x" * 10_000})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("At most 200 characters", answer.text)
        self.assertNotIn("<script>a", self.client.get("/search?q=<script>a").text)
