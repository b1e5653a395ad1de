"""A server over a damaged database: the inspections that can be read are, the others are said."""

import sqlite3
import tempfile
import unittest
from pathlib import Path

from fastapi.testclient import TestClient

from hakutsu.entries import Draft
from hakutsu.entries.general import Seen
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.web.app import create_app
from tests.builders import NOON, logbook_in, opened, reading

SALT = "salt " * 300


class Damaged(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.database = self.root / "hakutsu.sqlite"
        logbook = logbook_in(directory.name)
        self.inspections = [opened(logbook, name=f"Pellin {i}") for i in range(4)]
        for one in self.inspections:
            logbook.append(one, [Draft.write("general.seen", Seen(text=SALT), NOON) for _ in range(40)], "Ada")
        logbook.engine.dispose()
        with sqlite3.connect(self.database) as database:
            database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        database.close()

    def client(self):
        app = create_app(Logbook(DataDirectory(self.root).engine()), self.root)
        return TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False)

    def answers(self, client):
        return [client.get(f"/inspections/{one}/film").status_code for one in self.inspections]

    def test_a_page_of_one_inspection_overwritten(self):
        data = bytearray(self.database.read_bytes())
        page = int.from_bytes(data[16:18], "big")
        at = data.rindex(SALT[:9].encode()) // page * page
        data[at : at + 100] = b"\xff" * 100
        self.database.write_bytes(data)
        client = self.client()
        day = client.get("/")
        self.assertEqual(day.status_code, 200)
        self.assertIn("One inspection cannot be shown: the database is damaged", day.text)
        self.assertEqual(sorted(self.answers(client)), [200, 200, 200, 503])
        (lost,) = [one for one, code in zip(self.inspections, self.answers(client), strict=True) if code == 503]
        self.assertIn("hakutsu restore", client.get(f"/inspections/{lost}/report").text)
        for path in ("/settings", "/search?q=pellin", "/gauges", "/account"):
            self.assertEqual(client.get(path).status_code, 200, path)

    def test_the_end_cut_off(self):
        data = self.database.read_bytes()
        self.database.write_bytes(data[: len(data) * 8 // 10])
        client = self.client()
        self.assertEqual(client.get("/").status_code, 200)
        self.assertIn(200, self.answers(client))
        readable = next(one for one, code in zip(self.inspections, self.answers(client), strict=True) if code == 200)
        body = {"entries": [reading("roof", 118).model_dump(mode="json")]}
        answer = client.post(f"/inspections/{readable}/entries", json=body, headers={"accept": "application/json"})
        self.assertEqual(answer.status_code, 503)
        self.assertIn("nothing new is stored", answer.json()["message"])
