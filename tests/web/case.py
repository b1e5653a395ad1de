"""What tests of the pages begin with: a client over an empty logbook, and one with an inspection open."""

import re
import tempfile
import unittest
from pathlib import Path

from fastapi.testclient import TestClient

from hakutsu.entries import Draft
from hakutsu.web.app import create_app
from tests.builders import NOON, logbook_in, opened


class Reader(TestClient):
    """Reads a page as a browser shows it: lines of its source mean nothing, white space is one blank."""

    def request(self, *given, **more):
        response = super().request(*given, **more)
        if "html" in response.headers.get("content-type", ""):
            apart = re.sub(r"\s*\n\s*(?=<)|(?<=>)\s*\n\s*", "", response.text)
            response._text = re.sub(r"\s+", " ", apart)
        return response


class WebCase(unittest.TestCase):
    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.logbook = logbook_in(self.directory.name)
        self.client = Reader(create_app(self.logbook, Path(self.directory.name)), base_url="http://127.0.0.1")

    def post(self, inspection, *drafts, **more):
        body = {"entries": [draft.model_dump(mode="json") for draft in drafts], **more}
        return self.client.post(f"/inspections/{inspection}/entries", json=body, headers={"accept": "application/json"})

    def film_readings(self, inspection):
        return [e for e in self.client.get(f"/inspections/{inspection}/entries").json() if e["kind"] == "film.reading"]


class RoundCase(WebCase):
    def setUp(self):
        super().setUp()
        self.inspection = opened(self.logbook)
        self.here = f"/inspections/{self.inspection}"

    def dossier(self):
        return self.client.app.state.desk.reckoning(self.inspection).dossier

    def place(self, key):
        return next(one for one in self.dossier().place_coverage() if one.place == key)

    def write(self, kind, body, **envelope):
        draft = Draft.write(kind, body, NOON, **envelope)
        self.post(self.inspection, draft)
        return draft.id
