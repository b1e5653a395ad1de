"""The scan station: a sweep of the stand-in kept as an entry, results by hand, lamp, plate; to sheet and report."""

import time
from datetime import timedelta

from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries import Draft
from hakutsu.entries.engine import EngineStart
from hakutsu.entries.functions import Lamp
from hakutsu.entries.general import Seen, Station
from hakutsu.entries.opening import Stage, StageReached
from hakutsu.entries.scan import (
    CodeRead,
    EngineLamp,
    LampSeen,
    Link,
    NotScanned,
    PlateRead,
    ScanNone,
    ScanRead,
    SellerWork,
    SinceCleared,
    UnitRead,
)
from hakutsu.entries.settings import Overrides
from hakutsu.web.scan.sweep import sample, tally
from tests.builders import NOON, opened
from tests.web.case import RoundCase

VIN = "0RN1SKARRW2000017"


def read(*codes, **more):
    rows = tuple(CodeRead(code=one, memory=("stored",)) for one in codes)
    return ScanRead(link=Link(bitrate=500_000, identifiers=11), modules=(UnitRead(address="7E8", codes=rows, **more),))


class Scan(RoundCase):
    def page(self):
        return self.client.get(f"{self.here}/scan").text

    def report(self):
        return self.client.get(f"{self.here}/report").text

    def found(self, code):
        reckoning = self.client.app.state.desk.reckoning(self.inspection)
        return [one for one in reckoning.findings if one.code == code]

    def test_nothing_read_says_so_and_is_a_gap(self):
        self.assertIn("No scan yet", self.page())
        self.assertNotIn("Fault codes and control units", self.report())
        self.assertEqual(self.client.get(f"{self.here}/scan.json").json()["modules"], [])
        gaps = self.client.get(f"{self.here}/gaps").text
        self.assertIn("fault codes of the control units", gaps)

    def test_a_sweep_of_the_stand_in_is_kept_marked_and_told(self):
        link = f"{self.here}/scan/link"
        self.assertTrue(self.client.post(link, json={"scenario": "misfire"}).json()["running"])
        self.assertEqual(self.client.post(link, json={"scenario": "misfire"}).status_code, 409)
        until, seen = time.monotonic() + 40, set()
        while (state := self.client.get(link).json())["running"] and time.monotonic() < until:
            seen.add(state["doing"].split(":")[0])
            time.sleep(0.2)
        self.assertEqual((state["running"], state["said"]), (False, ""))
        self.assertIn("7E8", seen)
        page = self.page()
        for words in ("Simulated:", "cylinder 1 misses", "To confirm", "settle before paying", "switched on"):
            self.assertIn(words, page)
        self.assertIn("it comes from a simulated vehicle", self.report())
        (finding, *_) = self.found("scan.misfire")
        self.assertIn("simulated, for practice", finding.reasons)
        said = self.client.get(f"{self.here}/scan.json").json()
        self.assertEqual([one["address"] for one in said["modules"]], ["7E8", "7E9", "7EA"])

    def test_a_sweep_is_stopped_and_nobody_answering_is_said(self):
        link = f"{self.here}/scan/link"
        self.client.post(link, json={"scenario": "no_link"})
        until = time.monotonic() + 30
        while (state := self.client.get(link).json())["running"] and time.monotonic() < until:
            time.sleep(0.2)
        self.assertIn("no control unit answers", state["said"])
        self.client.post(link, json={"scenario": "healthy"})
        self.assertFalse(self.client.delete(link).json()["running"])

    def test_an_address_that_may_not_be_reached_and_none_at_all(self):
        link = f"{self.here}/scan/link"
        self.assertEqual(self.client.post(link, json={}).status_code, 422)
        self.client.post(link, json={"url": "socket://example.org:7"})
        until = time.monotonic() + 10
        while (state := self.client.get(link).json())["running"] and time.monotonic() < until:
            time.sleep(0.05)
        self.assertTrue(state["said"])
        self.assertEqual(self.dossier()[ScanDossier].reads, [])

    def test_a_code_is_on_the_sheet_and_joins_a_story(self):
        self.write("scan.read", read("P0562"))
        self.write("engine.start", EngineStart(jump_started=True))
        (found,) = self.found("scan.voltage")
        self.assertIn("a jump start may have left it behind", found.reasons)
        self.assertIn("ow voltage sets such codes by itself", self.report())
        sheet = self.client.get(f"{self.here}/life/sheet").text
        self.assertIn("P0562", sheet)

    def test_memory_cleared_lamp_plate_and_distance_reach_the_report(self):
        body = read("P0301", lamp=True, vin="0RN1SKARRW2000452", since_cleared=SinceCleared(km=12, warm_ups=1))
        self.write("scan.read", body)
        self.write("scan.lamp", EngineLamp(key_on=LampSeen.LIT, running=LampSeen.DARK))
        self.write("scan.plate", PlateRead(vin=VIN))
        report = self.report()
        for words in (
            "fault codes were cleared recently",
            "switched on by its unit and stays dark",
            "names another vehicle",
        ):
            self.assertIn(words, report.replace("Fault codes", "fault codes").replace("Unit ", "unit "))
        self.assertIn(f'value="{VIN}"', self.page())

    def test_a_second_read_is_compared_with_the_first(self):
        self.write("scan.read", read("P0301"))
        self.write("scan.read", read("P0420"))
        page = self.page()
        self.assertIn("First and latest scan", page)
        self.assertIn("Scanned twice; changes: 7E8 P0301: stored → –", self.report())

    def test_by_hand_with_and_without_codes_and_bad_ones_at_the_place(self):
        where = f"{self.here}/scan/by-hand"
        good = self.client.post(where, data={"module": "seat", "count": "3", "tool": "pocket reader", "minutes": "4,5"},
                                follow_redirects=False)  # fmt: skip
        self.assertEqual(good.status_code, 303)
        self.client.post(where, data={"module": "engine", "codes": "p0171, p0174"})
        self.assertEqual([one.subject for one in self.found("scan.lean")], ["P0171", "P0174"])
        self.assertIn("Seat: 3 stored with pocket reader", self.page())
        self.assertIn("seat: 3 stored", self.report())
        bad_ones = (
            ({"module": "engine", "codes": "P9"}, "Codes are written as"),
            ({"count": "3"}, "Say which unit"),
            ({"module": "x"}, "Codes are written as"),
            ({"module": "x", "count": "many"}, "How many is"),
        )
        for data, words in bad_ones:
            with self.subTest(data):
                bad = self.client.post(where, data=data)
                self.assertEqual(bad.status_code, 422)
                self.assertIn(words, bad.text)
                for typed in data.values():
                    self.assertIn(f'value="{typed}"', bad.text)

    def test_own_finished_vehicles_of_the_same_name_are_tallied_by_unit(self):
        for codes in (("P0301",), (), ("U0100",)):
            other = opened(self.logbook)
            stage = StageReached(stage=Stage.FINISHED)
            drafts = [Draft.write("scan.read", read(*codes), NOON), Draft.write("inspection.stage", stage, NOON)]
            self.logbook.append(other, drafts, "inspector")
        found = tally(self.client.app.state.desk, self.inspection)
        self.assertEqual(found.units["7E8"].model_dump(), {"on": 2, "of": 3})

    def test_a_running_engine_gives_its_run_a_sample_and_a_standing_one_none(self):
        live = {"run_s": 300.0, "coolant_c": 71.0, "rpm": 810.0}
        found = sample(read(live=live))
        self.assertEqual((found.minute, found.coolant_c, found.rpm, found.by_link), (5.0, 71.0, 810.0, True))
        self.assertIsNone(sample(read(live=live | {"rpm": 0.0})))
        self.assertIsNone(sample(read()))

    def test_work_done_during_the_visit_makes_a_cleared_memory_innocent_only_if_it_came_before(self):
        fresh = read(since_cleared=SinceCleared(km=1, warm_ups=1))
        self.write("scan.seller_work", SellerWork(part="alternator", who="the seller", invoice=True))
        self.write("scan.read", fresh)
        (found,) = self.found("scan.cleared_innocent")
        self.assertIn("work during the visit (alternator) explains it", found.words)
        self.assertIn("alternator, by the seller, with invoice", self.report())
        late = Draft.write("scan.seller_work", SellerWork(part="battery"), NOON + timedelta(hours=1))
        self.post(self.inspection, late)
        self.assertNotIn("battery", self.found("scan.cleared_innocent")[0].words)

    def test_a_story_is_told_beside_the_codes(self):
        self.write("scan.read", read("P0171"))
        self.write("general.seen", Seen(station=Station.GENERAL, text="a hose hisses at idle"), place="bay")
        self.assertIn("Air drawn in behind the meter makes the mixture lean", self.page())

    def test_distances_are_told_in_the_units_of_the_reader(self):
        self.write("scan.read", read("P0301", lamp=True, since_cleared=SinceCleared(km=161, warm_ups=3)))
        because = self.client.get(f"{self.here}/scan.json").json()["cleared"]["because"]
        self.assertIn("cleared 161 km and 3 warm-ups ago", because[0])
        self.write("inspection.settings", Overrides(distance="mi"))
        page = self.page()
        self.assertIn("cleared 100 mi and 3 warm-ups ago", page)
        self.assertIn("<dd>100 mi</dd>", page)
        self.assertNotIn("{distance", page)

    def test_files_go_out_and_come_in_again(self):
        self.write("scan.read", read("P0301", lamp=True, since_cleared=SinceCleared(km=900)))
        table = self.client.get(f"{self.here}/scan.csv").text
        self.assertEqual(table.splitlines()[1], "engine unit 7E8,P0301,stored,cylinder 1 misses,,")
        whole = self.client.get(f"{self.here}/scan.json").content
        for name, data in (("a.json", whole), ("a.csv", table.encode())):
            answer = self.client.post(f"{self.here}/scan/file", files={"file": (name, data)}, follow_redirects=False)
            self.assertEqual(answer.status_code, 303, name)
        scan = self.dossier()[ScanDossier]
        self.assertEqual(scan.reads[0].body, scan.reads[1].body)
        self.assertEqual(scan.by_hand[0].body.modules[0].codes, ("P0301",))

    def test_a_simulated_read_stays_marked_when_it_goes_out_and_comes_in(self):
        self.write("scan.read", read("P0301").model_copy(update={"simulated": True}))
        whole, table = (self.client.get(f"{self.here}/scan.{kind}").content for kind in ("json", "csv"))
        self.client.post(f"{self.here}/scan/file", files={"file": ("a.json", whole)})
        self.assertTrue(self.dossier()[ScanDossier].reads[1].body.simulated)
        refused = self.client.post(f"{self.here}/scan/file", files={"file": ("a.csv", table)})
        self.assertEqual(refused.status_code, 422)
        self.assertIn("codes of a simulated vehicle", refused.text)

    def test_a_lit_lamp_waits_for_its_code_and_one_that_is_explained_does_not(self):
        self.write("function.lamp", Lamp(name="engine"))
        self.assertIn("Waiting for a code", self.page())
        self.write("scan.read", read("P0301"))
        self.assertNotIn("Waiting for a code", self.page())

    def test_a_bad_file_is_named_by_its_fault_and_nothing_is_stored(self):
        bad_ones = {
            b"{": "not JSON",
            b'{"modules": 3}': "link: field required",
            b"a,b\n1,2\n": "has the columns",
            b"module,code\nseat,P9\n": "line 2",
            b"\xff\xfe": "UTF-8",
            b"": "has the columns",
            b"module,code\n": "names no unit",
        }
        for data, words in bad_ones.items():
            with self.subTest(data):
                answer = self.client.post(f"{self.here}/scan/file", files={"file": ("x", data)})
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.text)
        self.assertEqual((self.dossier()[ScanDossier].reads, self.dossier()[ScanDossier].by_hand), ([], []))

    def test_no_link_is_a_result_and_a_lit_lamp_without_a_scan_is_settled(self):
        self.write("scan.none", ScanNone(why=NotScanned.NO_LINK, lamp_lit=True))
        self.assertEqual(len(self.found("scan.not_read")), 1)
        report = self.report()
        self.assertIn("no link on this vehicle, a warning lamp is lit", report)
        self.assertIn("No scan: no link on this vehicle, a warning lamp is lit", self.page())
        self.assertNotIn("fault codes of the control units", self.client.get(f"{self.here}/gaps").text)
        self.write("scan.read", read())
        self.assertEqual(self.found("scan.not_read"), [])

    def test_without_electronics_it_is_no_gap_and_no_section(self):
        self.write("scan.none", ScanNone(why=NotScanned.NO_ELECTRONICS))
        self.assertNotIn("Fault codes and control units", self.report())
        self.assertNotIn("fault codes of the control units", self.client.get(f"{self.here}/gaps").text)

    def test_letters_that_no_number_has_are_refused(self):
        for vin in ("0RN1SKARRO2000017", "SHORT", "0RN1SKARRW20000171"):
            draft = {"kind": "scan.plate", "body": {"vin": vin}, "at": "2026-11-20T12:00:00Z"}
            self.assertGreaterEqual(
                self.client.post(f"{self.here}/entries", json={"entries": [draft]}).status_code, 400
            )
