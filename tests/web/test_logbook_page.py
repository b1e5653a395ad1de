import json
import re
import zipfile
from io import BytesIO
from uuid import UUID

from hakutsu.demo.pictures import sample_picture
from tests.builders import opened, reading
from tests.web.case import RoundCase


class OutAndIn(RoundCase):
    def setUp(self):
        super().setUp()
        self.post(self.inspection, reading("roof", 118))
        self.client.put(f"{self.here}/pictures/{UUID(int=7)}?name=a.jpg", content=sample_picture(size=(320, 240)))

    def exported(self):
        answer = self.client.get(f"{self.here}/logbook/export")
        self.assertEqual((answer.status_code, answer.headers["content-type"]), (200, "application/zip"))
        return answer.content

    def take(self, content, query=""):
        return self.client.put(f"/logbook/import{query}", content=content)

    def left_behind(self):
        return [one.name for one in (self.client.app.state.desk.uploads).glob("*")]

    def test_the_page_leads_out_and_in_and_says_how_far_it_holds(self):
        text = self.client.get(f"{self.here}/logbook").text
        self.assertIn(f'href="{self.here}/logbook/export"', text)
        self.assertIn("data-bundle-form", text)
        self.assertIn(f"Last hash <code>{self.logbook.tip(self.inspection)}", text)

    def test_out_and_in_as_another_shows_where_it_came_from(self):
        content = self.exported()
        done = self.take(content, "?new_id=true").json()
        self.assertEqual((done["added"], done["known"]), (4, 0))
        page = self.client.get(f"/inspections/{done['inspection']}/logbook").text
        self.assertIn("Imported from a logbook whose last hash was", page)
        self.assertIn(self.logbook.tip(self.inspection), page)
        self.assertEqual(self.client.get(f"/inspections/{done['inspection']}/report").status_code, 200)
        self.assertEqual(self.left_behind(), [])

    def test_twice_adds_nothing(self):
        self.assertEqual(self.take(self.exported()).json()["added"], 0)
        self.assertNotIn("Imported from", self.client.get(f"{self.here}/logbook").text)

    def test_faults_are_named_and_nothing_is_left(self):
        with zipfile.ZipFile(BytesIO(self.exported())) as archive:
            lines = archive.read("logbook.jsonl").decode()
        other = re.sub(str(self.inspection), str(UUID(int=9)), lines)
        bad = other.replace('"place":"roof"', '"place":"keel"', 1)
        answer = self.take(bad.encode())
        self.assertEqual(answer.status_code, 422)
        self.assertIn("line 3, place", answer.json()["faults"][0])
        self.assertEqual(self.take(b"<script>").status_code, 422)
        self.assertFalse(self.logbook.holds(UUID(int=9)))
        self.assertEqual(self.left_behind(), [])

    def test_a_picture_cannot_be_smuggled_in(self):
        out = BytesIO(self.exported())
        with zipfile.ZipFile(out, "a") as archive:
            archive.writestr(f"pictures/{'a' * 64}.svg", "<svg/>")
        answer = self.take(out.getvalue(), "?new_id=true")
        self.assertEqual(answer.status_code, 200)  # no entry names it: it is not looked at, and not kept
        self.assertFalse(self.client.app.state.desk.pictures.original("a" * 64).exists())

    def test_of_no_inspection(self):
        for path in ("logbook", "logbook/export"):
            self.assertEqual(self.client.get(f"/inspections/{UUID(int=9)}/{path}").status_code, 404)
        self.assertIn("does not exist here", self.client.get("/inspections/nonsense/logbook").text)

    def test_the_export_is_read_as_json_lines(self):
        with zipfile.ZipFile(BytesIO(self.exported())) as archive:
            kinds = [json.loads(line)["kind"] for line in archive.read("logbook.jsonl").splitlines()]
        self.assertEqual(kinds, ["inspection.vehicle", "inspection.brief", "film.reading", "picture.taken"])


class Corrections(RoundCase):
    """Several entries taken back in one go, or moved to the vehicle they belong to."""

    def setUp(self):
        super().setUp()
        self.entries = [reading("roof", 118), reading("front_door_right", 121), reading("front_door_left", 119)]
        for one in self.entries:
            self.post(self.inspection, one)
        self.other = opened(self.logbook, name="Carran Vale")

    def correct(self, entries, to=""):
        data = {"entry": [str(one) for one in entries], "to": str(to)}
        return self.client.post(f"{self.here}/logbook/corrections", data=data, follow_redirects=False)

    def ids(self):
        return [one.id for one in self.desk.reckoning(self.inspection).dossier.entries if one.kind == "film.reading"]

    @property
    def desk(self):
        return self.client.app.state.desk

    def test_several_at_once(self):
        self.assertEqual(self.correct(self.ids()[:2]).status_code, 303)
        page = self.client.get(f"{self.here}/logbook").text
        self.assertEqual(page.count("<s>"), 2)
        self.assertEqual(page.count('name="entry"'), 1)

    def test_what_stands_in_the_wrong_logbook_moves_and_both_can_be_read(self):
        moved = self.ids()[1:]
        self.assertEqual(self.correct(moved, self.other).status_code, 303)
        here = self.client.get(f"{self.here}/logbook").text
        there = self.client.get(f"/inspections/{self.other}/logbook").text
        self.assertEqual((here.count("<s>"), there.count("<s>")), (2, 0))
        self.assertIn("moved to Carran Vale", here)
        kept = self.desk.reckoning(self.other).dossier.entries
        self.assertEqual([one.body["value_um"] for one in kept if one.kind == "film.reading"], [121, 119])

    def test_nothing_ticked_and_what_cannot_move(self):
        self.assertEqual(self.correct([]).status_code, 409)
        self.assertEqual(self.correct(self.ids(), UUID(int=99)).status_code, 404)
        self.assertEqual(self.correct(self.ids(), self.inspection).status_code, 404)
        opening = self.desk.reckoning(self.inspection).dossier.entries[0].id
        self.assertEqual(self.correct([opening], self.other).status_code, 409)
        self.assertEqual(self.client.get(f"{self.here}/logbook").text.count("<s>"), 0)
