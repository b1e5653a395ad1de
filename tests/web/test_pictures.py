import hashlib
from uuid import uuid4

from hakutsu.demo.pictures import sample_picture
from hakutsu.entries import Draft
from hakutsu.entries.body import Blemish
from hakutsu.entries.general import ForDesk
from hakutsu.entries.pictures import Described, Marked, Picture
from tests.builders import NOON
from tests.web.case import RoundCase

DATA = sample_picture(size=(320, 240))


class Pictures(RoundCase):
    def put(self, data=DATA, entry=None, **query):
        return self.client.put(f"{self.here}/pictures/{entry or uuid4()}", content=data,
                               params={"name": "a.jpg", "place": "front", **query})  # fmt: skip

    def taken(self):
        return self.dossier().pictures.taken

    def text(self, room="pictures"):
        return self.client.get(f"{self.here}/{room}").text

    def test_taken_in_tied_to_its_place_and_given_back_byte_for_byte(self):
        entry = self.put().json()["entry"]
        kept = next(iter(self.taken().values()))
        self.assertEqual((str(kept.entry.id), kept.entry.place), (entry, "front"))
        self.assertEqual(kept.body.sha256, hashlib.sha256(DATA).hexdigest())
        answer = self.client.get(f"{self.here}/pictures/{entry}/original")
        self.assertEqual((answer.content, answer.headers["content-type"]), (DATA, "image/jpeg"))
        self.assertIn("Pictures: 1", self.text())
        self.assertIn("Pictures from here: 1", self.text("place/front"))

    def test_sent_twice_it_is_one_entry_and_the_same_bytes_for_two_places_are_two(self):
        entry = uuid4()
        for _ in range(2):
            self.assertEqual(self.put(entry=entry).status_code, 200)
        self.assertEqual(len(self.taken()), 1)
        self.put(place="rear")
        self.assertEqual(len(self.taken()), 2)

    def test_what_is_refused_says_why_and_leaves_no_entry(self):
        for data, query, why in ((b"text", {}, "no picture"), (DATA, {"name": "a.png"}, "its content is image/jpeg"),
                                 (DATA, {"tag": ["x" * 60]}, "40 characters"), (DATA, {"place": "x" * 61}, "place"),
                                 (DATA, {"place": "keel"}, "no place on a vehicle")):  # fmt: skip
            answer = self.put(data, **query)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(why, answer.json()["message"])
            self.assertEqual(list(self.client.app.state.desk.pictures.root.glob("*/*/*")), [], why)
        self.assertEqual(self.taken(), {})

    def test_a_refused_upload_takes_no_other_entrys_original_with_it(self):
        kept = self.put()
        self.assertEqual(self.put(place="keel").status_code, 422)
        entry = kept.json()["entry"]
        self.assertEqual(self.client.get(f"{self.here}/pictures/{entry}/original").content, DATA)

    def test_only_the_upload_writes_pictures(self):
        page = b"<script>alert(1)</script>"
        body = Picture(sha256=hashlib.sha256(page).hexdigest(), mime="text/html", size=len(page))
        answer = self.post(self.inspection, Draft.write("picture.taken", body, NOON)).json()
        self.assertEqual([one["field"] for one in answer["refused"]], ["kind"])
        self.assertEqual(self.taken(), {})

    def test_what_an_older_version_let_in_is_a_download_and_runs_nothing(self):
        for mime in ("text/html", "image/svg+xml", "application/javascript"):
            page = f"<script>{mime}</script>".encode()
            sha256 = hashlib.sha256(page).hexdigest()
            original = self.client.app.state.desk.pictures.original(sha256)
            original.parent.mkdir(parents=True, exist_ok=True)
            original.write_bytes(page)
            draft = Draft.write("picture.taken", Picture(sha256=sha256, mime=mime, size=len(page)), NOON)
            self.logbook.append(self.inspection, [draft], "Ada")
            answer = self.client.get(f"{self.here}/pictures/{draft.id}/original")
            self.assertEqual(answer.headers["content-type"], "application/octet-stream")
            self.assertTrue(answer.headers["content-disposition"].startswith("attachment"))
            self.assertIn("sandbox", answer.headers["content-security-policy"])

    def test_a_foreign_page_cannot_put_one_here(self):
        answer = self.client.put(
            f"{self.here}/pictures/{uuid4()}", content=DATA, headers={"origin": "http://elsewhere"}
        )
        self.assertEqual(answer.status_code, 403)

    def test_a_copy_stands_in_until_it_is_made(self):
        entry = self.put().json()["entry"]
        self.client.app.state.desk.pictures.close()
        answer = self.client.get(f"{self.here}/pictures/{entry}/400.jpg")
        self.assertEqual(answer.headers["content-type"], "image/jpeg")
        self.assertNotIn(b"Exif", answer.content)
        self.assertEqual(self.client.get(f"{self.here}/pictures/{entry}/77.jpg").status_code, 404)
        self.assertEqual(self.client.get(f"{self.here}/pictures/progress").json(), {"waiting": 0})

    def test_a_tag_ticks_its_shot(self):
        self.assertIn("Shot list: 0 of 13", self.text())
        self.put(tag=["front_left"])
        self.assertIn("Shot list: 1 of 13", self.text())

    def test_described_marked_and_in_the_report(self):
        entry = self.put().json()["entry"]
        self.assertNotIn("figcaption", self.text("report"))
        self.write("picture.described", Described(of=entry, words="haze", looks="worse"))
        mark = {"shape": "arrow", "points": ((0.1, 0.2), (0.5, 0.5)), "text": "here"}
        self.write("picture.annotated", Marked(of=entry, marks=(mark,)))
        one = self.text(f"pictures/{entry}")
        self.assertIn('class="an-line"', one)
        self.assertIn("haze", one)
        self.assertIn("haze (Front); looks worse than it is", self.text("report"))
        self.assertEqual(self.client.get(f"{self.here}/pictures/{entry}/original").content, DATA)

    def test_a_picture_of_a_mark_is_counted_beside_it(self):
        mark = self.write("body.blemish", Blemish(kind="dent"), place="bonnet")
        self.put(of=str(mark))
        self.assertIn(">1 picture<span", self.text("outside/blemishes"))
        self.assertIn("Pictures: 1", self.client.get(f"{self.here}/pictures?of={mark}").text)

    def test_compare_shows_two_and_a_wrong_one_is_404(self):
        a, b = (self.put(place=place).json()["entry"] for place in ("front", "rear"))
        text = self.client.get(f"{self.here}/pictures/compare", params={"a": a, "b": b}).text
        self.assertEqual(text.count("<figure"), 2)
        self.assertEqual(self.client.get(f"{self.here}/pictures/{uuid4()}").status_code, 404)

    def test_the_desk_queue_shows_picture_and_question_and_settles(self):
        entry = self.put().json()["entry"]
        asked = self.write("general.for_desk", ForDesk(question="made so, or bent?", shows=entry))
        text = self.text("desk")
        self.assertIn("Desk queue: 1 open", text)
        self.assertIn(f"pictures/{entry}/1600.jpg", text)
        form = {"of": str(asked), "answer": "made so", "source": "a twin at the yard", "back": "desk"}
        answer = self.client.post(f"{self.here}/round/settle", data=form, follow_redirects=False)
        self.assertTrue(answer.headers["location"].endswith("/desk"))
        self.assertIn("Nothing waits for the desk", self.text("desk"))

    def test_a_clip_is_played_from_its_original(self):
        clip = b"\x1a\x45\xdf\xa3" + bytes(900)
        entry = self.put(clip, name="start.webm").json()["entry"]
        self.assertIn("<video", self.text(f"pictures/{entry}"))
        part = self.client.get(f"{self.here}/pictures/{entry}/original", headers={"range": "bytes=0-99"})
        self.assertEqual((part.status_code, len(part.content)), (206, 100))

    def test_a_file_that_is_gone_says_so(self):
        entry = self.put().json()["entry"]
        kept = next(iter(self.taken().values()))
        self.client.app.state.desk.pictures.original(kept.body.sha256).unlink()
        self.assertEqual(self.client.get(f"{self.here}/pictures/{entry}/original").status_code, 410)
