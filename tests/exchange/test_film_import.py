import tempfile
import unittest
from uuid import uuid4

from hakutsu.dossier import gather_dossier
from hakutsu.entries import Draft, Entry
from hakutsu.entries.general import Strike
from hakutsu.entries.opening import Vehicle
from hakutsu.exchange.film_csv import read_film_csv
from hakutsu.exchange.film_import import MOST_FILE_ROWS, MOST_ROWS, import_drafts, plan_import
from tests.builders import NOON, car, logbook_in, opened
from tests.exchange.test_film_csv import HEADER


class Import(unittest.TestCase):
    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.logbook = logbook_in(self.directory.name)
        self.inspection = opened(self.logbook)

    def dossier(self):
        return gather_dossier(self.inspection, self.logbook.entries(self.inspection))

    def plan(self, *rows, survey="s"):
        return plan_import(read_film_csv((HEADER + "\n".join(rows)).encode()), survey, self.dossier(), "sha")

    def store(self, plan, **more):
        drafts = import_drafts(plan, self.dossier(), NOON, name="a.csv", sha256="sha", **more)
        self.logbook.append(self.inspection, drafts, "Ada")

    ROWS = ("s,roof,,,112,um,ok,steel,factory,1500,1", "s,bonnet,0.5,0.5,over,um,ok,steel,factory,,",
            "s,bonnet,0.5,0.5,,um,over,steel,factory,1500,1", "t,roof,,,250,um,ok,steel,factory,,")  # fmt: skip

    def test_a_plan_stores_nothing_and_counts_everything(self):
        plan = self.plan(*self.ROWS)
        self.assertEqual((len(plan.new), [bad.row for bad in plan.bad], plan.other_surveys), (2, [3], ["t"]))
        self.assertEqual(self.dossier().film.readings, [])

    def test_stored_rows_become_readings_with_their_gauges_step_and_limit(self):
        self.store(self.plan(*self.ROWS))
        first, second = self.dossier().film.readings
        self.assertEqual((first.body.value_um, first.body.step_um, first.body.source), (112, 1, "file"))
        self.assertEqual((second.body.status, second.body.limit_um, second.body.u), ("over", 1500, 0.5))
        self.assertEqual(self.dossier().film.imports[0].left_out, 1)

    def test_importing_the_same_file_twice_stores_it_once(self):
        self.store(self.plan(*self.ROWS))
        again = self.plan(*self.ROWS)
        self.assertEqual((len(again.new), len(again.known)), (0, 2))
        self.store(again)
        self.assertEqual(len(self.dossier().film.readings), 2)

    def test_a_row_struck_since_can_be_imported_again(self):
        self.store(self.plan(*self.ROWS))
        struck = self.dossier().film.readings[0].entry
        self.logbook.append(self.inspection, [Draft.write("general.strike", Strike(), NOON, strikes=struck)], "Ada")
        self.store(self.plan(*self.ROWS))
        self.assertEqual(len(self.dossier().film.readings), 2)

    def test_a_panel_the_vehicle_lacks_is_a_bad_row(self):
        plan = self.plan("s,bed_side_left,,,112,um,ok,steel,factory,,")
        self.assertIn("not fitted", plan.bad[0].reason)

    def test_another_declared_finish_is_asked_about_and_taken_only_when_said(self):
        plan = self.plan("s,roof,,,112,um,ok,steel,restored,,")
        self.assertEqual(plan.finish_conflict, "restored")
        self.store(plan)
        self.assertEqual(self.dossier().vehicle.finish, "factory")
        self.store(self.plan("s,bonnet,,,112,um,ok,steel,restored,,"), take_finish=True)
        self.assertEqual(self.dossier().vehicle.finish, "restored")

    def test_another_metal_than_expected_is_remarked_on(self):
        self.assertIn("aluminium", self.plan("s,roof,,,112,um,ok,aluminium,factory,,").remarks[0])


class TooMany(unittest.TestCase):
    HEADER = "panel,reading,unit,status,substrate,finish\n"
    ROW = "roof,118,um,ok,steel,factory\n"

    def test_a_file_of_more_rows_than_a_survey_has_is_refused_as_a_whole(self):
        file = read_film_csv((self.HEADER + self.ROW * 101).encode(), 100)
        self.assertEqual(file.rows, [])
        (bad,) = file.bad
        self.assertEqual((bad.row, bad.reason), (102, "more than 100 rows: is this one vehicle's survey?"))
        self.assertEqual(len(read_film_csv((self.HEADER + self.ROW * 100).encode(), 100).rows), 100)

    def test_bad_rows_count_too(self):
        file = read_film_csv((self.HEADER + "keel,1,um,ok,steel,factory\n" * 500).encode(), 100)
        self.assertEqual(len(file.bad), 1)

    def test_one_vehicle_has_fewer_than_a_file_may_have(self):
        file = read_film_csv((self.HEADER + self.ROW * (MOST_ROWS + 1)).encode(), MOST_FILE_ROWS)
        inspection = uuid4()
        vehicle = Draft.write("inspection.vehicle", Vehicle(vehicle=car()), NOON)
        entry = Entry(**vehicle.model_dump(), inspection=inspection, by="Ada", seq=1, hash="")
        plan = plan_import(file, "", gather_dossier(inspection, [entry]), "0" * 64)
        self.assertEqual(plan.new, [])
        self.assertIn("more than 5,000 rows of one vehicle", str(plan.bad[0]))
