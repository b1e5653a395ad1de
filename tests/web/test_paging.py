"""Long lists in pages: nothing is out of reach, and links lead to the page that shows what they name."""

import unittest
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.general import Seen, Strike
from hakutsu.entries.pictures import Picture, PictureKind
from hakutsu.web.paging import SHOWN, part_of
from tests.builders import NOON
from tests.web.case import RoundCase


class Parts(unittest.TestCase):
    def test_the_newest_where_nothing_is_asked(self):
        part = part_of(120, None)
        self.assertEqual((part.first, part.last, part.earlier, part.later), (71, 120, 21, None))

    def test_every_one_is_on_a_page_on_the_way_back_and_forth(self):
        for count in (0, 1, 49, 50, 51, 100, 101, 5000):
            for begin, way in ((None, "earlier"), (1, "later")):
                seen, start = set(), begin
                while True:
                    part = part_of(count, start)
                    seen |= set(range(part.first, part.last + 1))
                    start = getattr(part, way)
                    if start is None:
                        break
                self.assertEqual(seen, set(range(1, count + 1)), (count, way))

    def test_what_is_asked_for_is_shown_and_nonsense_is_the_nearest(self):
        for at in (1, 2, 60, 119, 120):
            self.assertIn(at, part_of(120, None, at))
        self.assertEqual(part_of(120, 10**9).last, 120)
        self.assertEqual((part_of(0, 7).first, part_of(0, 7).last), (1, 0))


class Logbook(RoundCase):
    def setUp(self):
        super().setUp()
        drafts = [Draft.write("general.seen", Seen(text=f"remark no {i}."), NOON) for i in range(118)]
        self.first = drafts[0].id
        self.logbook.append(self.inspection, drafts, "Test Inspector")

    def page(self, query=""):
        answer = self.client.get(f"{self.here}/logbook{query}")
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def shown(self, query=""):
        text = self.page(query)
        return [i for i in range(130) if f'id="e{i}"' in text]

    def test_the_newest_first_page_and_the_way_back(self):
        self.assertEqual(self.shown(), list(range(71, 121)))
        self.assertIn('href="?start=21" rel="prev"', self.page())
        self.assertEqual(self.shown("?start=21"), list(range(21, 71)))
        self.assertIn("120 entries", self.page("?start=21"))

    def test_an_entry_asked_for_is_shown(self):
        for at in (1, 60, 120):
            self.assertIn(at, self.shown(f"?at={at}"))
        self.assertEqual(len(self.shown("?at=99999")), SHOWN // 2 + 1)
        for nonsense in ("?at=-1", "?start=x", "?at=1e3"):
            self.assertEqual(self.client.get(f"{self.here}/logbook{nonsense}").status_code, 422, nonsense)

    def test_taken_back_long_ago_links_to_its_page(self):
        self.write("general.strike", Strike(because="misread"), strikes=self.first)
        self.assertIn('<a href="?at=3#e3">no. 3</a>', self.page())
        self.assertIn("<s>", self.page("?at=3"))

    def test_a_short_one_has_no_pages(self):
        other = UUID(int=4)
        self.logbook.open_inspection(other, NOON)
        entries = self.logbook.entries(self.inspection)[:2]
        self.logbook.append(other, [Draft.write(one.kind, one.parsed(), NOON) for one in entries], "Test Inspector")
        self.assertNotIn('aria-label="More entries"', self.client.get(f"/inspections/{other}/logbook").text)


class Pictures(RoundCase):
    def taken(self, number, place):
        body = Picture(
            sha256=f"{number:064x}", name=f"p{number}.jpg", kind=PictureKind.STILL, mime="image/jpeg", size=100,
            width=40, height=30,
        )  # fmt: skip
        return Draft.write("picture.taken", body, NOON, id=UUID(int=1000 + number), place=place)

    def test_fifty_at_a_time_and_a_place_is_kept_while_turning_pages(self):
        drafts = [self.taken(i, "front" if i < 60 else "rear") for i in range(1, 112)]
        self.logbook.append(self.inspection, drafts, "Test Inspector")
        text = self.client.get(f"{self.here}/pictures").text
        self.assertIn("Pictures: 111", text)
        self.assertEqual(text.count("data-pick="), SHOWN)
        self.assertIn(str(UUID(int=1111)), text)
        self.assertIn('href="?start=12"', text)
        front = self.client.get(f"{self.here}/pictures?place=front").text
        self.assertIn("Pictures: 59 of 111", front)
        self.assertIn('href="?start=1&amp;place=front&amp;of="', front)
        self.assertEqual(self.client.get(f"{self.here}/pictures?place=front&start=1").text.count("data-pick="), SHOWN)
        self.assertNotIn("More pictures", self.client.get(f"{self.here}/pictures?place=roof").text)
