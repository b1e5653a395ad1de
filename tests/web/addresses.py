"""Every address of an inspection, found by itself, and a case that opens them all."""

import html
import re
from pathlib import Path

from hakutsu.vehicle.places import places
from hakutsu.web.engine.context import ROOMS as ENGINE
from hakutsu.web.life.context import ROOMS as LIFE
from hakutsu.web.outside.context import ROOMS as OUTSIDE
from hakutsu.web.papers.context import ROOMS as PAPERS
from hakutsu.web.road.context import ROOMS as ROAD
from hakutsu.web.service.context import ROOMS as SERVICE
from tests.web.case import RoundCase

ROOMS = {"papers": PAPERS, "service": SERVICE, "engine": ENGINE, "life": LIFE, "outside": OUTSIDE, "road": ROAD}
STREAMS = ("film/link/news",)  # never ends
OF_A_THING = (
    "{entry}",
    "{digest}",
    "pictures/compare",
    "engine/link",
    "plan.ics",
    "logbook/export",
)  # need what is not there, or are opened where they are tested
START = "/inspections/{inspection}"
_LINES = (Path(__file__).parent / "worst_phrases.txt").read_text(encoding="utf-8").splitlines()
PHRASES = [line for line in _LINES if line and not line.startswith("#")]
PUZZLES = re.compile("|".join(rf"(?<![\w-]){re.escape(one)}(?![\w-])" for one in PHRASES), re.IGNORECASE)


def shown(text):
    """What somebody reads or hears of a page: its text, and the words of labels, hints and titles."""
    body = re.sub(r"<(script|style)\b.*?</\1>", " ", text, flags=re.S)
    said = re.findall(r'(?:aria-label|placeholder|title|alt)="([^"]*)"', body)
    words = re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]+>", " ", body)))
    return " \n".join([words, *map(html.unescape, said)])


class AddressCase(RoundCase):
    def addresses(self, only=lambda i, key: True):
        """Every address below an inspection's; of the places' pages `only` those by number and key."""
        for path, verbs in self.client.app.openapi()["paths"].items():
            rest = path.removeprefix(START)
            if not path.startswith(START) or "get" not in verbs or any(one in path for one in (*STREAMS, *OF_A_THING)):
                continue
            if "{place}" in path:
                yield from (rest.replace("{place}", key) for i, key in enumerate(places()) if only(i, key))
            elif "{room}" in path:
                yield from (rest.replace("{room}", room) for room in ROOMS[rest.split("/")[1]])
            else:
                yield rest

    def answers(self, inspection, only=lambda i, key: True):
        for rest in self.addresses(only):
            with self.subTest(rest):
                answer = self.client.get(f"/inspections/{inspection}{rest}")
                self.assertEqual(answer.status_code, 200)
                if "html" in answer.headers["content-type"]:
                    self.assertIsNone(PUZZLES.search(shown(answer.text)))
                self.assertNotRegex(answer.text, r"\{(left|right|distance|depth|temperature|pressure|place) ?[^}]*\}")
