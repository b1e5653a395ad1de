"""Who may send, how much, and what every answer carries."""

import json
from unittest.mock import patch
from uuid import UUID

from fastapi.testclient import TestClient
from sqlalchemy.exc import OperationalError

from hakutsu.logbook import ImportUnderWay
from hakutsu.web.guard import CONTENT_POLICY, MOST_BYTES
from tests.builders import opened, reading
from tests.web.case import WebCase

JSON = {"accept": "application/json"}


def pieces(total, size=65536):
    """A body that comes in pieces, its length not told."""
    for start in range(0, total, size):
        yield b"x" * min(size, total - start)


class Senders(WebCase):
    def test_what_another_site_sends_is_refused_on_every_method_that_writes(self):
        inspection = opened(self.logbook)
        link = f"/inspections/{inspection}/film/link"
        addresses = (("POST", "/account"), ("PUT", "/logbook/import"), ("DELETE", link), ("PATCH", "/"))
        for headers in (
            {"origin": "http://elsewhere.example"},
            {"origin": "http://["},
            {"origin": "null"},
            {"sec-fetch-site": "cross-site"},
            {"sec-fetch-site": "same-site"},
            {"sec-fetch-site": "cross-site", "origin": "http://127.0.0.1"},
        ):
            for method, address in addresses:
                with self.subTest(method=method, headers=headers):
                    self.assertEqual(self.client.request(method, address, headers=headers).status_code, 403)

    def test_reading_and_what_its_own_pages_send_is_not(self):
        for headers in ({"origin": "http://127.0.0.1"}, {"sec-fetch-site": "same-origin"}, {"sec-fetch-site": "none"}):
            answer = self.client.post("/account", data={"name": "Ada"}, headers=headers, follow_redirects=False)
            self.assertEqual(answer.status_code, 303)
        self.assertEqual(self.client.get("/", headers={"sec-fetch-site": "cross-site"}).status_code, 200)

    def test_other_hosts_are_not_answered(self):
        for host in ("testserver", "elsewhere.example", "127.0.0.1.example"):
            answer = self.client.get("/", headers={"host": host})
            self.assertEqual(answer.status_code, 400)
            self.assertIn("Content-Security-Policy", answer.headers)


class Sizes(WebCase):
    def test_a_body_in_pieces_counts_as_well(self):
        inspection = opened(self.logbook)
        for address, kind in (
            (f"/inspections/{inspection}/entries", "application/json"),
            ("/account", "application/x-www-form-urlencoded"),
        ):
            body = pieces(MOST_BYTES + 70_000)
            answer = self.client.post(address, content=body, headers=JSON | {"content-type": kind})
            self.assertEqual((answer.status_code, answer.json()["message"]), (413, "larger than 2 MB"))

    def test_an_upload_in_pieces_too(self):
        inspection = opened(self.logbook)
        with patch("hakutsu.web.guard.MOST_CLIP", 200_000):
            answer = self.client.put(
                f"/inspections/{inspection}/pictures/{inspection}?name=a.jpg", content=pieces(300_000), headers=JSON
            )
        self.assertEqual(answer.status_code, 413)
        self.assertEqual(list(self.client.app.state.desk.pictures.root.glob("incoming/*")), [])

    def test_a_length_that_is_none_or_a_lie(self):
        for length, code in (("x", 400), ("-1", 400), ("1e3", 400), ("9" * 400, 413), ("²", 400)):
            answer = self.client.post("/account", content=b"", headers=[(b"content-length", length.encode())])
            self.assertEqual(answer.status_code, code, length)


class Answers(WebCase):
    def test_private_pages_are_kept_nowhere_and_carry_the_headers(self):
        inspection = opened(self.logbook)
        for path in (
            "/",
            f"/inspections/{inspection}/film",
            f"/inspections/{inspection}/entries",
            "/nowhere",
            "/search",
        ):
            answer = self.client.get(path)
            self.assertEqual(answer.headers["cache-control"], "no-store", path)
            self.assertEqual(answer.headers["content-security-policy"], CONTENT_POLICY)
            self.assertEqual(answer.headers["x-content-type-options"], "nosniff")
        self.assertEqual(self.client.get("/static/app.css").headers["cache-control"], "no-cache")

    def failing(self, error, accept="text/html"):
        client = TestClient(self.client.app, base_url="http://127.0.0.1", raise_server_exceptions=False)
        with (
            patch("hakutsu.web.summaries.Summaries.page", side_effect=error),
            patch("hakutsu.logbook.store.Logbook.inspections", side_effect=error),
        ):
            return client.get("/", headers={"accept": accept})

    def test_a_failure_carries_them_too_and_is_a_page(self):
        answer = self.failing(ZeroDivisionError("secret details"))
        self.assertEqual(answer.status_code, 500)
        self.assertEqual(answer.headers["content-security-policy"], CONTENT_POLICY)
        self.assertEqual(answer.headers["cache-control"], "no-store")
        self.assertIn("ours to mend", answer.text)
        self.assertNotIn("secret", answer.text)
        self.assertEqual(set(self.failing(ValueError("x"), "application/json").json()), {"message"})

    def test_faults_of_the_database_and_of_the_disk_are_sentences(self):
        for error, code, said in (
            (OperationalError("x", {}, Exception("database or disk is full")), 507, "disk is full"),
            (OperationalError("x", {}, Exception("database disk image is malformed")), 503, "damaged"),
            (OperationalError("x", {}, Exception("attempt to write a readonly database")), 503, "read-only"),
            (ImportUnderWay("entries are being imported"), 503, "Entries are being imported"),
            (OSError(28, "No space left on device"), 507, "disk is full"),
            (OSError(30, "Read-only file system"), 503, "cannot be written"),
            (OSError(5, "Input/output error"), 500, "ours to mend"),
        ):
            with self.subTest(said):
                answer = self.failing(error)
                self.assertEqual(answer.status_code, code)
                self.assertIn(said, answer.text)

    def test_a_full_disk_at_an_upload_leaves_neither_file_nor_entry(self):
        inspection = opened(self.logbook)
        with patch("hakutsu.logbook.pictures.Incoming.write", side_effect=OSError(28, "No space left on device")):
            answer = self.client.put(f"/inspections/{inspection}/pictures/{inspection}?name=a.jpg", content=b"x")
        self.assertEqual(answer.status_code, 507)
        self.assertEqual(list(self.client.app.state.desk.pictures.root.glob("*/*")), [])
        self.assertEqual(self.logbook.ends()[inspection].seq, 2)


class Entries(WebCase):
    def refused(self, raw):
        inspection = opened(self.logbook)
        good = reading("roof", 112)
        body = f'{{"entries": [{good.model_dump_json()}, {raw}]}}'
        answer = self.client.post(
            f"/inspections/{inspection}/entries", content=body, headers=JSON | {"content-type": "application/json"}
        )
        self.assertEqual(answer.status_code, 200, answer.text)
        self.assertEqual(answer.json()["acknowledged"], [str(good.id)])
        self.assertEqual(self.logbook.ends()[inspection].seq, 3)
        (one,) = answer.json()["refused"]
        return one

    def raw(self, body=None, **more):
        """An entry as JSON; "1e400" and the like are written as numbers."""
        draft = {"id": str(UUID(int=1)), "at": "2026-11-20T12:00:00Z", "kind": "general.seen", "body": {"text": "x"}}
        said = json.dumps(draft | ({"body": body} if body is not None else {}) | more)
        return said.replace('"1e400"', "1e400").replace('"NaN"', "NaN")

    def test_values_at_the_edge_are_refused_at_their_field_and_take_no_other_with_them(self):
        for raw, field in (
            (self.raw({"text": "x", "low": 1, "high": "1e400"}), "high"),
            (self.raw({"text": "x", "low": 1, "high": "NaN"}), "high"),
            (self.raw({"text": "\ud800"}), "text"),
            (self.raw({"text": "x" * 1_000_000}), "text"),
            (self.raw(at="0001-01-01T00:00:00+14:00"), "at"),
            (self.raw(at="9999-12-31T23:59:59-14:00"), "at"),
            (self.raw(place="x" * 61), "place"),
            (self.raw(place="keel"), "place"),
            (self.raw(pictures=[str(UUID(int=1))] * 5000), "pictures"),
            (self.raw(mood="calm"), "mood"),
            (self.raw({}, kind="film.guess"), "kind"),
            (self.raw({"item": "warp_drive", "result": "works"}, kind="function.tried"), "item"),
            (self.raw({"sha256": "a" * 64, "mime": "text/html", "size": 5}, kind="picture.taken"), "kind"),
            (self.raw({"sha256": "a" * 64, "mime": "image/png", "size": 10**18}, kind="picture.taken"), "kind"),
        ):
            with self.subTest(raw[:120], field=field):
                self.assertEqual(self.refused(raw)["field"], field)
