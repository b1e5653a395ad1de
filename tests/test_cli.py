import json
import socket
import subprocess
import tempfile
import unittest
from pathlib import Path

from typer.testing import CliRunner

from hakutsu.cli import app
from hakutsu.dossier import gather_dossier
from hakutsu.web.owned import OwnedStandIn
from tests.browser.driving import HAKUTSU, RunningServer
from tests.builders import logbook_in, opened
from tests.exchange.test_film_csv import HEADER

EXAMPLE = Path(__file__).parents[1] / "examples" / "estate_film.csv"
# every second reading: more would tell something
THINNER = "\n".join(row for i, row in enumerate(EXAMPLE.read_text().splitlines()) if i == 0 or i % 2) + "\n"
GOOD = HEADER + "".join(f"s,{p},,,{v},um,ok,steel,factory,1500,1\n" for p in ("roof", "bonnet") for v in (118, 121))
BAD = GOOD + "s,hood,,,112,um,ok,steel,factory,,\ns,roof,,,12x,um,ok,steel,factory,,\n"


def run(*arguments, text=None):
    """The command in this process; its exit status, standard output and standard error."""
    return CliRunner().invoke(app, [str(argument) for argument in arguments], input=text)


def run_process(*arguments, typed=None):
    """The installed command as a process of its own."""
    command = [str(HAKUTSU), *map(str, arguments)]
    return subprocess.run(command, capture_output=True, text=True, check=False, timeout=60, input=typed)


class Film(unittest.TestCase):
    def test_json_holds_the_whole_contract(self):
        (found,) = json.loads(run("film", EXAMPLE, "--json").stdout)
        self.assertLessEqual({"survey", "school", "baseline_um", "panels", "next", "story", "warnings"}, set(found))
        self.assertLessEqual({"median", "low", "high"}, set(found["baseline_um"]))
        for panel in found["panels"]:
            self.assertLessEqual({"panel", "readings", "state", "probabilities", "filled_share", "reasons"}, set(panel))
            self.assertAlmostEqual(sum(panel["probabilities"].values()), 1)
            self.assertEqual(len(panel["probabilities"]), 6)
        filled = next(p for p in found["panels"] if p["panel"] == "rear_quarter_right")
        self.assertEqual((filled["state"], filled["readings"]), ("filled", 6))

    def test_the_table_tells_the_story_and_where_to_read_next(self):
        said = run("film", "-", text=THINNER).stdout
        self.assertIn("story: front left corner", said)
        self.assertIn("story: rear right corner", said)
        self.assertRegex(said, r"next: [A-Z].*bit\)")

    def test_next_and_story_have_their_shape(self):
        (found,) = json.loads(run("film", "-", "--json", text=THINNER).stdout)
        self.assertEqual(set(found["next"]), {"panel", "u", "v", "gain_bits"})
        self.assertEqual(set(found["story"][0]), {"zone", "probability", "for", "against"})
        self.assertEqual(found["story"][0]["zone"], "front_corner_left")
        chances = [zone["probability"] for zone in found["story"]]
        self.assertEqual(chances, sorted(chances, reverse=True))

    def test_plastic_is_listed_without_probabilities(self):
        rows = GOOD + "s,front_bumper,,,,um,none,plastic,factory,,\ns,rear_bumper,,,80,um,ok,plastic,factory,,\n"
        (found,) = json.loads(run("film", "-", "--json", text=rows).stdout)
        for name in ("front_bumper", "rear_bumper"):
            panel = next(p for p in found["panels"] if p["panel"] == name)
            self.assertEqual((panel["readings"], panel["probabilities"], panel["state"]), (0, None, None))

    def test_one_object_per_survey(self):
        rows = GOOD + GOOD.removeprefix(HEADER).replace("s,", "t,")
        self.assertEqual([f["survey"] for f in json.loads(run("film", "-", "--json", text=rows).stdout)], ["s", "t"])

    def test_bad_input_is_status_2_every_bad_row_on_stderr_nothing_on_stdout(self):
        done = run("film", "-", "--json", text=BAD)
        self.assertEqual((done.exit_code, done.stdout), (2, ""))
        self.assertIn("row 6, panel “hood”", done.stderr)
        self.assertIn("row 7, reading “12x”", done.stderr)

    def test_a_missing_file_and_a_wrong_band_are_status_2(self):
        for arguments in (("film", "nowhere.csv"), ("film", EXAMPLE, "--school", "fixed", "--band", "150", "130"),
                          ("film", EXAMPLE, "--band", "130", "150"), ("film", EXAMPLE, "--school", "old")):  # fmt: skip
            with self.subTest(arguments):
                done = run(*arguments)
                self.assertEqual((done.exit_code, done.stdout), (2, ""))

    def test_schools_and_bands_are_taken(self):
        (found,) = json.loads(run("film", EXAMPLE, "--school", "fixed", "--band", "100", "110", "--json").stdout)
        self.assertEqual(found["school"], "fixed")
        roof = next(p for p in found["panels"] if p["panel"] == "roof")
        self.assertIn("110", roof["concern_because"])

    def test_without_json_a_plain_table(self):
        done = run("film", EXAMPLE)
        self.assertEqual(done.exit_code, 0)
        self.assertIn("Rear quarter, right", done.stdout)


class ImportFilm(unittest.TestCase):
    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.inspection = opened(logbook_in(self.directory.name))

    def run_import(self, text, *more):
        where = ("--inspection", self.inspection, "--data", self.directory.name)
        return run("import", "film", "-", *where, *more, text=text)

    def stored(self):
        entries = logbook_in(self.directory.name).entries(self.inspection)
        return len(gather_dossier(self.inspection, entries).film.readings)

    def test_a_clean_file_is_stored_once(self):
        self.assertEqual(self.run_import(GOOD).exit_code, 0)
        self.assertEqual(self.run_import(GOOD).exit_code, 0)
        self.assertEqual(self.stored(), 4)

    def test_bad_rows_are_status_2_and_store_nothing(self):
        done = self.run_import(BAD)
        self.assertEqual((done.exit_code, self.stored()), (2, 0))
        self.assertIn("row 7", done.stderr)

    def test_accept_clean_stores_the_good_rows_and_still_says_2(self):
        self.assertEqual(self.run_import(BAD, "--accept-clean").exit_code, 2)
        self.assertEqual(self.stored(), 4)

    def test_several_surveys_must_be_chosen_from(self):
        two = GOOD + GOOD.removeprefix(HEADER).replace("s,", "t,")
        self.assertEqual(self.run_import(two).exit_code, 2)
        self.assertEqual(self.run_import(two, "--survey", "t").exit_code, 0)
        self.assertEqual(self.stored(), 4)

    def test_another_finish_must_be_decided(self):
        restored = GOOD.replace("factory", "restored")
        self.assertEqual(self.run_import(restored).exit_code, 2)
        self.assertEqual(self.run_import(restored, "--finish", "inspection").exit_code, 0)

    def test_an_unknown_inspection_is_status_2(self):
        self.inspection = "00000000-0000-4000-8000-000000000000"
        self.assertEqual(self.run_import(GOOD).exit_code, 2)


class Vehicle(unittest.TestCase):
    def test_what_does_not_ship_is_named_with_what_does(self):
        for option, words in (("--engine", "healthy, stuck_open"), ("--scenario", "healthy, cleared_recently")):
            found = run("vehicle", "simulate", option, "steam")
            self.assertEqual(found.exit_code, 2)
            self.assertIn("“steam” ships; there are " + words, found.stderr)

    def test_a_port_in_use_is_a_clear_error(self):
        with socket.create_server(("127.0.0.1", 0)) as taken:
            found = run("vehicle", "simulate", "--port", taken.getsockname()[1])
        self.assertEqual(found.exit_code, 1)
        self.assertIn("choose another with --port", found.stderr)


class Scan(unittest.TestCase):
    """The vehicle in one process, the reader in another."""

    def read(self, scenario):
        owned = OwnedStandIn("vehicle", "simulate", "--scenario", scenario)
        self.addCleanup(owned.end)
        return run_process("scan", "read", owned.url, "--json")

    def test_a_cleared_memory_is_told_with_nothing_else_on_standard_output(self):
        found = self.read("cleared_recently")
        self.assertEqual((found.returncode, found.stderr), (0, ""))
        said = json.loads(found.stdout)
        self.assertEqual(said["link"], {"bitrate": 500000, "identifiers": 11})
        self.assertEqual([one["address"] for one in said["modules"]], ["7E8", "7E9", "7EA"])
        self.assertGreater(said["cleared"]["probability"], 0.9)
        self.assertEqual(said["modules"][0]["since_cleared"], {"warm_ups": 3, "km": 41, "minutes": 55})
        self.assertEqual(said["problems"], [])

    def test_nobody_answers(self):
        found = self.read("no_link")
        self.assertEqual((found.returncode, found.stdout), (2, ""))
        self.assertEqual(len(found.stderr.strip().splitlines()), 1)
        self.assertIn("no control unit answers", found.stderr)

    def test_no_adapter_there(self):
        found = run_process("scan", "read", "socket://127.0.0.1:9", "--json")
        self.assertEqual((found.returncode, found.stdout), (2, ""))
        self.assertIn("no adapter at", found.stderr)

    def test_decoding_goes_line_by_line_and_never_fails(self):
        lines = "43 01 01 33\n\nnonsense\n7f 22 78\n"
        found = run_process("scan", "decode", "--json", typed=lines)
        self.assertEqual(found.returncode, 0)
        rows = json.loads(found.stdout)
        self.assertEqual([one["service"] for one in rows], ["03", None, "22"])
        self.assertEqual(["problem" in one for one in rows], [False, True, False])


class Serving(unittest.TestCase):
    def test_a_second_server_on_the_same_directory_or_port_is_a_clear_error(self):
        with RunningServer() as server, tempfile.TemporaryDirectory() as other:
            same = run_process("serve", "--data", server.data, "--port", "0")
            taken = run_process("serve", "--data", other, "--port", server.port)
        self.assertEqual((same.returncode, taken.returncode), (1, 1))
        self.assertIn("another Hakutsu server", same.stderr)
        self.assertIn(f"port {server.port}", taken.stderr)
        self.assertNotIn("Traceback", same.stderr + taken.stderr)

    def test_it_listens_on_loopback_only(self):
        with RunningServer() as server:
            self.assertTrue(server.address.startswith("http://127.0.0.1:"))
            with Path("/proc/net/tcp").open() as table:
                listening = [line.split()[1] for line in table if line.split()[3] == "0A"]
        self.assertIn(f"0100007F:{server.port:04X}", listening)
        self.assertNotIn(f"00000000:{server.port:04X}", listening)

    def test_without_a_command_it_says_what_there_is(self):
        self.assertIn("Usage", run_process("--help").stdout)
