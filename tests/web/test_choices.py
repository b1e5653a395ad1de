"""What a page offers to choose from is sent by its key, never by the words it is told in."""

import importlib
import pkgutil
import re
from html import unescape
from pathlib import Path

import hakutsu
from hakutsu.demo import add_demo
from hakutsu.demo.building import CARS, demo_id
from hakutsu.vehicle.keyed import Keyed, key_of
from tests.web.addresses import AddressCase

TEMPLATES = Path(hakutsu.__file__).parent / "web" / "templates"
CHOICE = re.compile(r'<(?:option|button|input type="radio")\b[^>]*? value="([^"]*)"')
SELECT = re.compile(r"<select\b.*?</select>", re.DOTALL)


def every_kind(kind: type[Keyed] = Keyed) -> set[type[Keyed]]:
    """Every class below, once all modules of the inner rooms are there."""
    return {kind} | {below for one in kind.__subclasses__() for below in every_kind(one)}


class Choices(AddressCase):
    def test_no_choice_of_any_page_sends_words(self):
        for room in ("entries", "vehicle", "core"):
            package = importlib.import_module(f"hakutsu.{room}")
            for module in pkgutil.walk_packages(package.__path__, f"{package.__name__}."):
                importlib.import_module(module.name)
        members = {one for kind in every_kind() for one in kind}
        words = {str(one) for one in members} - {key_of(one) for one in members}
        self.assertGreater(len(words), 60)
        add_demo(self.logbook)
        for car in CARS:
            for rest in self.addresses():
                shown = self.client.get(f"/inspections/{demo_id(car)}{rest}").text
                with self.subTest(car=car, page=rest):
                    self.assertEqual({unescape(one) for one in CHOICE.findall(shown)} & words, set())

    def test_every_choice_of_a_select_says_what_it_sends(self):
        for path in TEMPLATES.rglob("*.html"):
            for select in SELECT.findall(path.read_text()):
                with self.subTest(path.name):
                    self.assertNotRegex(select, r"<option(?![^>]* value=)")
