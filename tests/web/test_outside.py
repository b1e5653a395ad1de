import re

from hakutsu.entries.body import Addition, Blemish, Event, Fit, Glass, Rust, Trim
from hakutsu.entries.general import NothingFound, Strike
from hakutsu.entries.opening import Brief
from tests.builders import reading
from tests.web.case import RoundCase

ROOMS = ("blemishes", "fit", "glass", "rust", "trim", "additions")


class Outside(RoundCase):
    def text(self, room, **query):
        return self.client.get(f"{self.here}/outside/{room}", params=query).text

    def mark(self, place="bonnet", **more):
        return self.write("body.blemish", Blemish(**{"kind": "scratch", **more}), place=place)

    def test_every_room_stands_empty_and_a_wrong_one_says_which_there_are(self):
        for room in ROOMS:
            answer = self.client.get(f"{self.here}/outside/{room}")
            self.assertEqual(answer.status_code, 200)
        self.assertEqual(self.client.get(f"{self.here}/outside/cellar").status_code, 404)
        answer = self.client.get(f"{self.here}/outside", follow_redirects=False)
        self.assertTrue(answer.headers["location"].endswith("/outside/blemishes"))

    def test_a_mark_is_on_the_sheet_in_the_list_with_remedy_and_cost_and_in_the_parts_sent_back(self):
        self.mark(depth="clear", length_mm=120, path=((0.2, 0.4), (0.5, 0.4)))
        text = self.text("blemishes")
        self.assertIn('class="bl-line"', text)
        self.assertIn("1 mark: €", text)
        self.assertIn("Machine polish (60 %), else local refinish: read the film here first", text)
        asked = "view=outside&room=blemishes&shows=yard"
        fragments = self.client.get(f"{self.here}/fragments?{asked}").json()
        self.assertEqual(set(fragments), {"outside_marks", "outside_list", "rail", "next"})
        self.assertNotIn("bl-line", fragments["outside_marks"])

    def test_film_read_beside_it_settles_the_remedy(self):
        self.post(self.inspection, *(reading(p, um, u=0.5, v=0.5) for p in ("roof", "front_door_left", "rear_door_left",
                  "front_wing_left", "sill_left") for um in (119, 120, 121)))  # fmt: skip
        self.post(self.inspection, *(reading("bonnet", um, u=0.3, v=0.4) for um in (119, 120, 121)))
        self.mark(depth="on_film", path=((0.3, 0.4),), kind="fade")
        with_room = self.client.app.state.desk.reckoning(self.inspection).outside
        film = with_room.film_at(next(iter(self.dossier().body.blemishes.values())))
        self.assertIsNotNone(film.headroom_um)
        self.assertNotIn("read the film here first", self.text("blemishes"))

    def test_rate_own_figures_and_currency_follow(self):
        self.mark(depth="primer", length_mm=900)
        before = self.text("blemishes")
        self.client.post(f"{self.here}/settings", data={"labour_rate": "100"})
        self.assertNotEqual(before, self.text("blemishes"))
        # 3.5 to 6 h at 100 and 80 to 170 of materials, blends into two wings
        self.assertRegex(self.text("blemishes"), r"Bonnet</span><span>€600 \(430 to 770\)")
        self.write("inspection.brief", Brief(currency="NOK"))
        self.assertIn("NOK", self.text("blemishes"))

    def test_marks_across_a_seam_are_proposed_as_one_contact_and_joined(self):
        one = self.mark("front_door_left", path=((0.6, 0.5), (0.97, 0.5)))
        other = self.mark("rear_door_left", path=((0.03, 0.5), (0.4, 0.5)))
        self.assertIn("were 1 and 2 one contact?", self.text("blemishes"))
        self.write("body.event", Event(blemishes=(one, other), what="a post"))
        self.assertIn("One contact: a post</strong>, numbers 1, 2", self.text("blemishes"))
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("a post: numbers 1, 2; as one job €", report)
        joined = self.client.app.state.desk.reckoning(self.inspection).outside
        marks = self.dossier().body.blemishes.values()
        self.assertEqual(joined.cost_of(marks).total, joined.costs.total)  # nothing else is marked
        self.mark("roof", kind="peel")
        joined = self.client.app.state.desk.reckoning(self.inspection).outside
        self.assertLess(joined.cost_of(joined.contacts[0].marks).total.expected, joined.costs.total.expected)

    def test_a_struck_mark_of_a_contact_leaves_the_rest(self):
        one, other = self.mark("front_door_left"), self.mark("rear_door_left")
        self.write("body.event", Event(blemishes=(one, other)))
        self.write("general.strike", Strike(), strikes=other)
        self.assertIn("numbers 1", self.text("blemishes"))

    def test_a_gap_out_of_line_is_a_cue_of_the_film_and_both_sides_show_it(self):
        self.post(self.inspection, *(reading(p, um) for p in ("roof", "bonnet", "front_wing_left", "front_door_left")
                  for um in (118, 121)))  # fmt: skip
        before = self.client.app.state.desk.reckoning(self.inspection).film.analysis.panel("front_door_left").altered
        for place, gap in (("front_door_left", 7.0), ("front_door_right", 4.0), ("rear_door_left", 4.0)):
            self.write("body.fit", Fit(front_mm=gap, rear_mm=4.0), place=place)
        after = self.client.app.state.desk.reckoning(self.inspection).film.analysis.panel("front_door_left")
        self.assertGreater(after.altered, before)
        self.assertIn("seen: gap out of line or tapering", after.reasons)
        self.assertRegex(
            self.text("fit"), r"front gap 7 mm, 4 mm on the other side|Front gap 7 mm, 4 mm on the other side"
        )
        self.assertRegex(self.text("fit"), r"\(\w+ evidence for a repaint\)")

    def test_an_odd_date_mark_and_one_tap_for_nothing_wrong(self):
        for place, mark in (("windscreen", "9"), ("rear_screen", "6"), ("glass_front_door_left", "6"),
                            ("glass_front_door_right", "6")):  # fmt: skip
            self.write("body.glass", Glass(date_mark=mark), place=place)
        self.assertIn("marked unlike the others (6): replaced", self.text("glass"))
        self.assertEqual(len(re.findall(r'aria-label="Nothing wrong', self.text("glass"))), 12)

    def test_perforated_rust_in_what_carries_forbids_lifting_until_it_is_cleared(self):
        rust = self.write("body.rust", Rust(grade="perforated", where="sill end", structural=True), place="flank_left")
        self.assertIn("perforated sill", self.client.get(f"{self.here}/standdowns").text)
        self.assertIn("nobody lifts there", self.text("rust"))
        self.assertIn("See it from the other side too", self.text("rust"))
        form = {
            "act": "hazard.cleared",
            "of": str(rust),
            "name": "A. Weld",
            "trade": "body shop",
            "done": "sill renewed",
        }
        self.client.post(f"{self.here}/standdowns", data=form)
        self.assertIn("None is open", self.client.get(f"{self.here}/standdowns").text)
        self.write("body.rust", Rust(grade="surface", where="sill", structural=True), place="flank_left")
        self.assertIn("None is open", self.client.get(f"{self.here}/standdowns").text)

    def test_the_report_shows_what_the_buyers_taste_wants_and_counts_the_rest(self):
        self.mark(shows_from="close")
        self.mark(kind="dent", length_mm=80, shows_from="yard")
        self.write("body.trim", Trim(state="fine_pits", material="plated"), place="grille")
        self.write("body.addition", Addition(what="roof tent", holes=4), place="roof")
        for taste, shown, hidden in (("show", 2, 0), ("tidy", 1, 1), ("work", 1, 1)):
            self.write("inspection.brief", Brief(taste=taste))
            text = self.client.get(f"{self.here}/report").text
            self.assertEqual(text.count("data-mark"), shown, taste)
            self.assertEqual(re.search(rf"\b{hidden} more", text) is not None, bool(hidden), taste)
        self.assertIn("plated: fine pits", text)
        self.assertIn("roof tent", text)
        # four holes: 0.2 to 0.6 h each at 65, 3 to 12 of materials
        self.assertIn("closing its holes costs €134 (64 to 204)", text)
        self.assertIn("losing its holes costs €134", self.text("additions"))

    def test_what_is_refused_names_its_field(self):
        outside = {"kind": "chip", "path": [[2, 0]]}
        wrong = ({"kind": "scratch", "length_mm": -3}, {"kind": "wart"}, {"kind": "unidentified"}, outside)
        for body in wrong:
            draft = {"id": "7d0f0b1e-3c1c-4f52-9a53-0d8c1f3b0b01", "at": "2026-11-20T12:00:00Z", "kind": "body.blemish",
                     "body": body, "place": "bonnet"}  # fmt: skip
            answer = self.client.post(f"{self.here}/entries", json={"entries": [draft]}).json()
            self.assertEqual(len(answer["refused"]), 1)
            self.assertTrue(answer["refused"][0]["message"])

    def test_looked_and_none_found_is_an_entry_of_its_own_and_leaves_the_place_to_be_looked_at(self):
        self.write("general.nothing_found", NothingFound(station="outside", text="rust"), place="front")
        self.assertIn("Looked, none found", self.text("rust"))
        self.assertNotIn("Looked, none found", self.text("trim"))
        self.assertIn("Looked for and not found: rust: Front", self.client.get(f"{self.here}/report").text)
        self.assertEqual(str(self.place("front").looked), "open")

    def test_panes_with_nothing_wrong_stand_in_one_line_of_the_report(self):
        for place in ("windscreen", "headlamp_left"):
            self.write("body.glass", Glass(), place=place)
        self.assertIn(
            "Nothing wrong:</strong> Windscreen; Headlamp, left.", self.client.get(f"{self.here}/report").text
        )

    def test_a_peeling_panel_is_weighed_by_the_film_and_says_by_how_much(self):
        self.post(
            self.inspection, *(reading(p, um) for p in ("roof", "bonnet", "front_wing_left") for um in (118, 121))
        )
        desk = self.client.app.state.desk
        before = desk.reckoning(self.inspection).film.analysis.panel("bonnet").altered
        self.mark("bonnet", kind="peel")
        after = desk.reckoning(self.inspection).film.analysis.panel("bonnet")
        self.assertGreater(after.altered, before)
        self.assertIn("seen: peeling clear or bubbles", after.reasons)
        self.assertRegex(
            self.text("blemishes"),
            r"Bonnet, chance of a repaint: .* by the paint alone, .* with the fit too \(\w+ evidence for",
        )
