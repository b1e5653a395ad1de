"""Numbers, dates and distance over HTTP: from the entry to sheet, story, life and report."""

from hakutsu.demo.building import demo_drafts, demo_id
from hakutsu.entries.cabin import CabinWear
from hakutsu.entries.corners import Tyre
from hakutsu.entries.facts import Fact
from hakutsu.entries.general import Limit
from hakutsu.entries.papers import (
    CodeRead,
    DatedMark,
    DistanceRecord,
    EngineNumber,
    LotNumber,
    NumberRead,
    RegisterAsked,
)
from hakutsu.reckoning.papers import PapersReckoned
from hakutsu.vehicle.papers import registers
from hakutsu.web.next_step import _wanted
from tests.builders import NOON
from tests.web.case import RoundCase

GOOD = "0RNTSTRAND1900388"
FALL = (("2017-05-03", 30000), ("2018-05-03", 61000), ("2019-05-03", 92000), ("2020-05-03", 121000),
        ("2021-05-03", 71000), ("2022-05-03", 101000), ("2023-05-03", 131000))  # fmt: skip


class Papers(RoundCase):
    def reckoned(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def station(self):
        return self.reckoned().station(PapersReckoned)

    def room(self, name, **query):
        return self.client.get(f"{self.here}/papers/{name}", params=query).text

    def report(self):
        return self.client.get(f"{self.here}/report").text

    def codes(self):
        return {one.code for one in self.reckoned().findings_of("papers")}

    def records(self, *rows, unit="km", source="test"):
        for on, value in rows:
            self.write("papers.distance", DistanceRecord(on=on, value=str(value), unit=unit, source=source))


class Identity(Papers):
    def test_empty_it_says_what_identity_rests_on(self):
        self.assertIn("Not read yet", self.room("identity"))
        self.assertEqual(self.client.get(f"{self.here}/papers").url.path, f"{self.here}/papers/identity")
        self.assertEqual(self.client.get(f"{self.here}/papers/nothing").status_code, 404)

    def test_numbers_that_differ_reach_the_sheet_and_the_report(self):
        self.write("papers.number", NumberRead(where="plate", text=GOOD))
        self.write("papers.number", NumberRead(where="papers", text="0RNTSTRAND1904172"))
        self.assertIn("Not read yet: stamped in the body", self.room("identity"))
        self.assertIn("pp-odd", self.room("identity"))
        sheet = self.client.get(f"{self.here}/life/sheet").text
        self.assertIn("plate and papers differ at places 14, 15, 16, 17", sheet)
        self.assertIn("plate and papers differ", self.report())
        self.assertIn("Not read: stamped number", self.report())
        self.assertIn("papers/identity", self.client.get("/search?q=1904172").text)

    def test_engine_code_and_lot(self):
        self.write("papers.engine_number", EngineNumber(made="stamped", text="447130"))
        self.write("papers.engine_number", EngineNumber(made="papers", text="447120"))
        self.write("papers.code", CodeRead(of="colour", text="HG 31", seen="differs"))
        self.write("papers.lot", LotNumber(text="A 117"))
        self.assertEqual(self.codes(), {"papers.engine_differs", "papers.colour_differs"})
        self.assertIn("A 117", self.room("identity"))

    def test_a_picture_of_another_inspection_is_refused(self):
        answer = self.client.get(f"{self.here}/papers/identity?picture=6f9b2a52-58f2-4f44-9a0e-4a8d3c6b4a11")
        self.assertEqual(answer.status_code, 404)

    def test_a_number_of_nothing_is_refused_at_its_field(self):
        body = {"where": "plate", "text": " ?? "}
        with self.assertRaises(ValueError):
            NumberRead(**body)


class Dates(Papers):
    def mark(self, mark, text, place=None, code="plain", table=""):
        self.write("papers.mark", DatedMark(mark=mark, code=code, text=text, table=table), place=place)

    def test_a_corner_of_other_dates_is_a_cluster_and_a_story_with_the_film(self):
        self.mark("build_plate", "2019-03")
        self.mark("lamp", "22>5", "rear_corner_right", "clock_mould")
        self.mark("pane", "2022-06", "rear_corner_right")
        self.assertEqual(self.codes(), {"papers.date_later", "papers.date_cluster"})
        text = self.room("dates")
        self.assertIn("Built March 2019", text)
        self.assertIn("later: replaced then", text)
        self.assertIn("parts of one date", self.report())

    def test_the_corner_that_was_apart_is_told_with_its_film_and_its_pane(self):
        id = demo_id("estate")
        self.logbook.open_inspection(id, NOON)
        self.logbook.append(id, demo_drafts("estate"), "Test Inspector")
        rules = [one.rule for one in self.client.app.state.desk.reckoning(id).stories]
        self.assertIn("dates_film", rules)
        self.assertIn("pane_number", rules)

    def test_the_film_beside_a_cluster_is_judged_with_it(self):
        self.mark("build_plate", "2019-03")
        self.mark("lamp", "2022-05", "rear_corner_right")
        self.mark("tyre", "2222", "front_corner_left", "tyre_week")
        self.mark("battery", "2022-06", "front_corner_left")
        cues = self.reckoned().film.survey.cues
        self.assertNotIn("rear_quarter_right", cues)
        self.mark("pane", "2022-06", "rear_corner_right")
        cues = self.reckoned().film.survey.cues
        self.assertEqual([one.kind for one in cues["rear_quarter_right"]], ["dates_later"])
        self.assertNotIn("front_wing_left", cues)

    def test_what_wears_out_may_be_later(self):
        self.mark("build_plate", "2019-03")
        self.write("corner.tyre", Tyre(date_code="3122"), place="wheel_front_left")
        self.mark("battery", "2023-01", "bay")
        self.assertEqual(self.codes(), set())
        self.assertIn("week 31 of 2022", self.room("dates"))

    def test_without_a_build_date_nothing_is_late(self):
        self.mark("pane", "2022-06", "rear_corner_right")
        self.assertEqual(self.codes(), set())
        self.assertIn("No build date yet", self.room("dates"))

    def test_a_stamp_before_the_build_is_much_earlier(self):
        self.mark("build_plate", "2019-03")
        self.mark("casting", "2016-03", "bay")
        self.assertEqual(self.codes(), {"papers.date_earlier"})

    def test_what_cannot_be_read_is_said_and_counts_for_nothing(self):
        self.mark("build_plate", "2019-03")
        self.mark("tyre", "5419", "wheel_front_left", "tyre_week")
        self.mark("pane", "2031-03", "front")
        self.mark("casting", "C19", "bay", "letter_table", "ABC:1-12")
        text = self.room("dates")
        self.assertEqual(text.count("cannot be read so"), 2)
        self.assertIn("its table cannot be", text)
        self.assertEqual(self.codes(), set())

    def test_a_dated_part_is_as_old_as_its_mark(self):
        self.mark("radiator", "2024-11", "bay")
        years, made = self.station().part_ages()["radiator"]
        self.assertEqual(made, "2024-11")
        self.assertAlmostEqual(years, 2.0, delta=0.1)
        self.assertIn("radiator", self.reckoned().lives.given.proofs)


class Distance(Papers):
    def test_one_run_ends_where_the_dial_does_and_says_so_in_the_report(self):
        self.records(*FALL[:4])
        self.assertEqual(self.codes(), set())
        self.assertIn("The records fit one continuous run", self.room("distance"))
        self.assertIn("The records fit one continuous run", self.report())

    def test_a_fall_is_settled_and_moves_the_ages_of_parts(self):
        self.write("vehicle.fact", Fact(fact="odometer_km", value=131500.0, source="seen"))
        self.write("vehicle.fact", Fact(fact="first_used", value="2016-05-01"))
        before = self.reckoned().lives.given.odometer_km
        self.records(*FALL)
        one = next(one for one in self.reckoned().findings_of("papers") if one.code == "papers.distance_doubt")
        self.assertIn("between 3 May 2020 and 3 May 2021", one.words)
        self.assertNotIn("seller", one.words)
        self.assertGreater(self.reckoned().lives.given.odometer_km, before + 40_000)
        text = self.room("distance")
        self.assertIn("doubted", text)
        self.assertIn("pp-doubted", text)
        self.assertIn("do not fit one continuous run", self.client.get(f"{self.here}/life/sheet").text)

    def test_bad_days_are_kept_and_do_not_count(self):
        self.records(("2031-05-03", 30000), ("", 41000), ("2019", 15000), ("2020-05", 30000))
        text = self.room("distance")
        for why in ("of a day to come", "without a day"):
            self.assertIn(f"does not count: {why}", text)
        self.assertEqual(len(self.station().told.history.records), 2)

    def test_what_no_dial_shows_is_refused(self):
        for day in ("2020-02-30", "2020-13", "0000", "soon"):
            with self.subTest(day), self.assertRaises(ValueError):
                DistanceRecord(on=day, value="40000", source="test")
        for value in ("1000000000", "-5", "12,5", "????", "twelve", ""):
            with self.subTest(value), self.assertRaises(ValueError):
                DistanceRecord(on="2020-01-01", value=value, source="test")

    def test_a_year_in_which_it_was_first_used_is_not_before_it(self):
        self.write("vehicle.fact", Fact(fact="first_used", value="2016-11-20"))
        self.records(("2016", 900), ("2016-11", 950), ("2016-10", 1), ("2017-05-03", 9000))
        days = [one.on.isoformat() for one in self.station().told.history.records]
        self.assertEqual(days, ["2016-11-20", "2016-11-20", "2017-05-03"])

    def test_without_a_first_use_the_build_plate_begins_the_run(self):
        self.write("papers.mark", DatedMark(mark="build_plate", text="2016-04"))
        self.records(*FALL[:3])
        self.assertEqual(self.station().told.history.first_used.isoformat(), "2016-04-30")

    def test_a_hidden_digit_is_read_as_it_fits(self):
        self.records(*FALL[:2], ("2019-05-03", "?2000"), ("2020-05-03", 121000))
        told = self.station().told
        self.assertEqual(told.hidden[0].values[0][0], 92000.0)
        self.assertEqual(told.distance.likeliest, "consistent")
        self.assertIn("may be 92,000", self.room("distance"))

    def test_two_papers_that_say_the_same_change_nothing(self):
        self.records(*FALL[:4])
        before = self.station().told.distance.probabilities
        self.records(FALL[1], source="stamp")
        for kind, share in self.station().told.distance.probabilities.items():
            self.assertAlmostEqual(share, before[kind], places=6)

    def test_miles_in_and_miles_out(self):
        self.records(("2019-05-03", 10000), ("2020-05-03", 20000), unit="mi")
        self.assertEqual([round(one.km) for one in self.station().told.history.records], [16093, 32187])

    def test_wear_of_the_cabin_stands_beside(self):
        self.write("cabin.wear", CabinWear(part="rim", wear="heavy"))
        self.records(*FALL[:4])
        self.assertIn("Wear of the cabin by itself speaks for about", self.room("distance"))


class Registers(Papers):
    def test_every_register_says_where_it_is_asked(self):
        text = self.room("registers")
        for row in registers().values():
            self.assertIn(row.where.split(",")[0], text)

    def test_what_one_noted_is_a_finding_and_what_was_not_asked_stays(self):
        self.write("papers.asked", RegisterAsked(register_key="theft", answer="noted", note="sought since May"))
        self.write("papers.asked", RegisterAsked(register_key="recall", answer="clear", of="the dealer"))
        self.write("papers.asked", RegisterAsked(register_key="finance", answer="no_answer"))
        one = next(iter(self.reckoned().findings_of("papers")))
        self.assertEqual((one.code, one.consequence.value), ("papers.noted_theft", "walk_away"))
        report = self.report()
        self.assertIn("Still to ask:", report)
        self.assertIn("outstanding finance (the register", report)
        self.assertNotIn("recalls (the maker", report)


class WhatComesNext(Papers):
    def test_a_number_that_cannot_be_read_is_a_limit_and_asks_no_more(self):
        def wanted():
            return [one.room for one in _wanted(self.reckoned(), NOON)]

        self.assertIn("papers/identity", wanted())
        self.write("general.limit", Limit(station="papers", because="paint over all of it", partly=True))
        self.assertNotIn("papers/identity", wanted())
        self.assertIn("paint over all of it", self.report())
        self.records(*FALL[:2])
        self.assertNotIn("papers/distance", wanted())
