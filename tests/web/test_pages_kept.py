"""A page that shows the same is sent as it was; whatever it shows and changes makes it anew."""

from datetime import UTC, datetime
from unittest.mock import patch

from hakutsu.entries.general import Seen
from hakutsu.entries.settings import Settings
from hakutsu.web import rendering
from tests.builders import opened, reading
from tests.web.case import RoundCase

AT = datetime(2026, 11, 20, 12, 0, 10, tzinfo=UTC)


class PagesKept(RoundCase):
    def setUp(self):
        super().setUp()
        self.desk = self.client.app.state.desk
        clock = patch.object(self.desk, "now", lambda: self.at)
        self.at = AT
        clock.start()
        self.addCleanup(clock.stop)

    def made(self, path="/round", **headers):
        """Whether a page was made, as 1 or 0."""
        with patch.object(rendering._environment, "get_template", wraps=rendering._environment.get_template) as asked:
            self.text = self.client.get(f"{self.here}{path}", headers=headers).text
        return int(asked.called)

    def test_the_second_time_nothing_is_made(self):
        self.assertEqual(self.made(), 1)
        first = self.text
        self.assertEqual(self.made(), 0)
        self.assertEqual(self.text, first)
        self.assertEqual(self.made("/cabin"), 1)
        self.assertEqual(self.made("/cabin?x=1"), 1)

    def test_packed_and_not_packed_are_apart(self):
        plain = {"accept-encoding": "identity"}
        self.assertEqual([self.made("/cabin"), self.made("/cabin", **plain), self.made("/cabin", **plain)], [1, 1, 0])

    def test_an_entry_the_minute_the_name_and_the_settings_make_it_anew(self):
        changes = (
            lambda: self.write("general.seen", Seen(station="general", text="salt in the seams"), place="bay"),
            lambda: setattr(self, "at", AT.replace(minute=1)),
            lambda: setattr(self.logbook, "account", "Isla Varnock"),
            lambda: setattr(self.logbook.library, "settings", Settings(distance="mi")),
            lambda: self.client.post("/gauges", data={"name": "Pocket", "unit": "um", "step": "1", "limit": "1500"}),
        )
        self.made()
        for change in changes:
            change()
            with self.subTest(change):
                self.assertEqual([self.made(), self.made()], [1, 0])

    def test_another_inspection_leaves_it_as_it_was_but_for_its_timers(self):
        self.made()
        other = opened(self.logbook)
        self.post(other, reading("roof", 118))
        self.assertEqual(self.made(), 0)
        self.client.post(f"/inspections/{other}/timers/start", data={"label": "battery rests", "minutes": "30"})
        self.assertEqual(self.made(), 1)
        self.assertIn("battery rests", self.text)

    def test_headers_stand_on_what_was_kept_too(self):
        self.made()
        answer = self.client.get(f"{self.here}/round")
        self.assertEqual(answer.headers["cache-control"], "no-store")
        self.assertIn("default-src 'none'", answer.headers["content-security-policy"])

    def test_what_is_no_page_is_never_kept(self):
        for path in ("/round?bad", "/nowhere", "/entries"):
            with self.subTest(path):
                first = self.client.get(f"{self.here}{path}")
                self.post(self.inspection, reading("roof", 118))
                self.assertEqual(self.client.get(f"{self.here}{path}").status_code, first.status_code)
        self.assertEqual(len(self.client.get(f"{self.here}/entries").json()), 5)
