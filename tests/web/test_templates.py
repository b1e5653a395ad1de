"""Templates stay readable, and a page is sent without their indentation."""

from pathlib import Path

import hakutsu
from hakutsu.report.rendering import jinja
from tests.web.addresses import AddressCase

ROOT = Path(hakutsu.__file__).parent
WIDEST = 140  # bytes


class Templates(AddressCase):
    def test_no_line_is_wider_than_a_screen(self):
        for path in ROOT.rglob("*.html"):
            for number, line in enumerate(path.read_text().splitlines(), 1):
                with self.subTest(path=str(path.relative_to(ROOT)), line=number):
                    self.assertLess(len(line.encode()), WIDEST)

    def test_indentation_is_not_sent(self):
        made = jinja().from_string(
            '<ul>\n    {% for one in "ab" %}\n    <li\n      id="{{ one }}">a  b</li>\n    {% endfor %}\n</ul>'
        )
        self.assertEqual(made.render(), '<ul>\n <li\nid="a">a  b</li>\n <li\nid="b">a  b</li>\n</ul>')
        inline = jinja().from_string("a{% if true %}\n <b>c</b>{% endif %}")
        self.assertEqual(inline.render(), "a <b>c</b>")
        for rest in ("/report", "/life/sheet"):
            self.assertNotRegex(self.client.get(f"{self.here}{rest}").text, r"\n[ \t]{2,}<")
