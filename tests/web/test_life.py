import re

from hakutsu.entries.body import Blemish
from hakutsu.entries.claims import Claim
from hakutsu.entries.corners import Brake, Fluid, Gear, PartProof, Pedal, Tyre
from hakutsu.entries.facts import Fact
from hakutsu.entries.money import ClaimPriced, Line, MechanicsSaid
from hakutsu.entries.opening import Brief
from hakutsu.entries.settings import Overrides
from tests.web.case import RoundCase

FL, FR = "wheel_front_left", "wheel_front_right"
FACTS = {"first_used": "2016-11-20", "odometer_km": 150_000, "power": "diesel", "drive": "front", "gearbox": "manual",
         "timing": "belt", "rear_axle": "beam", "rear_brakes": "discs"}  # fmt: skip
ROOMS = ("calendar", "money", "sheet", "preparation", "condition", "facts")


class LifePages(RoundCase):
    def setUp(self):
        super().setUp()
        self.write("inspection.brief", Brief(km_per_year=12_000, asking_price=8000, currency="EUR"))

    def told(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics=FACTS))

    def text(self, room, **query):
        answer = self.client.get(f"{self.here}/life/{room}", params=query)
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def picture(self, room, **query):
        return self.client.get(f"{self.here}/life/{room}/picture", params=query).json()["fragments"][f"life_{room}"]

    def lives(self):
        return self.client.app.state.desk.reckoning(self.inspection).lives

    def due(self, key):
        return next(job for job in self.lives().jobs if job.key == key)

    def test_every_room_stands_with_nothing_known_and_says_that_it_is_wide(self):
        for room in ROOMS:
            self.assertNotIn("Traceback", self.text(room))
        calendar = self.text("calendar")
        for said in ("Wide, because much is not known", "Age and distance of the vehicle not known", "No tyre measured",
                     "Not reckoned, because it is not told"):  # fmt: skip
            self.assertIn(said, calendar)
        self.assertEqual(self.client.get(f"{self.here}/life/cellar").status_code, 404)
        answer = self.client.get(f"{self.here}/life", follow_redirects=False)
        self.assertTrue(answer.headers["location"].endswith("/life/calendar"))

    def test_facts_make_it_narrower_and_proofs_are_kept(self):
        wide = self.due("battery").months()
        self.told()
        narrow = self.due("battery").months()
        self.assertLess(narrow.high - narrow.low, wide.high - wide.low)
        self.assertNotIn("Age and distance of the vehicle not known", self.text("calendar"))
        self.write("life.proof", PartProof(part="timing_belt", when="2025-11", at_km=140_000, proof="invoice"))
        self.assertIn(
            "timing belt: new or done 2025-11, at 140,000 km, invoice", self.text("facts").replace("Timing", "timing")
        )
        # 8 years from November 2025 are 84 months on; 120,000 km less 10,000 at 12,000 a year are 110
        self.assertAlmostEqual(self.due("timing_belt").months().median, 84, delta=1)

    def test_spending_says_that_parts_nobody_told_of_are_missing_in_it(self):
        self.assertRegex(self.text("money"), r"Too low besides: \d+ kinds of parts are not counted")
        self.told()
        self.assertNotIn("Too low", self.text("money"))

    def test_another_distance_is_shown_at_once_and_not_kept(self):
        self.told()
        self.write("corner.tyre", Tyre(depth_mm=(4.0,)), place=FL)
        slow, fast = (self.picture("calendar", km=km, use="") for km in ("6000", "24,000"))
        row = re.compile(r"Tyres, front.*?</tr>", re.S)
        self.assertNotEqual(row.search(slow)[0], row.search(fast)[0])
        self.assertEqual(self.dossier().opening.brief.km_per_year, 12_000)
        self.assertEqual(self.picture("calendar", km="12000", use=""), self.picture("calendar"))
        for nonsense in ("abc", "-5", "0", "9999999"):
            self.assertEqual(self.picture("calendar", km=nonsense), self.picture("calendar"))

    def test_another_use_is_shown_with_its_reason_and_a_form_without_script_works(self):
        self.told()
        self.assertIn("Use to come: salt ×2", self.picture("calendar", km="12000", use="salt,nonsense"))
        self.assertIn("Use to come: salt ×2", self.text("calendar", km="12000", use_salt="yes"))
        self.assertNotIn("Use to come: salt ×2", self.text("calendar"))

    def test_shares_of_the_mean_add_up_on_the_page(self):
        self.told()
        text = self.text("money")
        tables = re.split(r"Within \d+ months</summary>", text)[1:]
        self.assertEqual(len(tables), 3)
        for table in tables:
            shares = [int(one.replace(",", "")) for one in re.findall(r"%</td><td>€([\d,]+)</td>", table)]
            mean = re.findall(r'font-bold">€([\d,]+)</td>', table)[-1]
            self.assertEqual(sum(shares), int(mean.replace(",", "")))

    def test_a_failed_part_is_settled_once_and_its_clock_starts_anew(self):
        self.told()
        self.write("corner.gear", Gear(part="link", grade="failed"), place=FL)
        sheet = self.lives().sheet
        [line] = [one for one in sheet.lines if one.item.key == ("job", "link:front_left")]
        self.assertEqual(line.treat.value, "settle")
        shares = {d.key: d for d in self.lives().spending[0].drivers}
        self.assertNotIn("link:front_left", shares)  # a new one lasts longer than a year
        self.write("money.line", Line(code="job", subject="link:front_left", treat="budget"))
        shares = {d.key: d for d in self.lives().spending[0].drivers}
        self.assertEqual(shares["link:front_left"].chance, 1.0)

    def test_the_sheet_line_by_line_with_own_amounts_and_claims(self):
        self.told()
        self.write("corner.fluid", Fluid(kind="dot4", boils_c=150))
        self.write("corner.pedal", Pedal(parking="weak"))
        claim = self.write("claim.said", Claim(words="new tyres", who="advert", kind="new_tyres"))
        text = self.text("sheet")
        for said in (
            "brake fluid boils at 150",
            "Parking brake holds weakly",
            "not priced",
            "Asked €8,000.00",
            "“new tyres”",
        ):
            self.assertIn(said, text)
        self.write("money.claim", ClaimPriced(of=claim, amount="200", because="five years old"))
        self.write("money.line", Line(code="job", subject="brake_fluid", treat="settle", amount="80"))
        sheet = self.lives().sheet
        self.assertEqual(sheet.settled, 280)
        self.assertIn("€7,720.00", self.text("sheet"))
        self.assertIn("five years old", self.text("sheet"))
        self.assertIn("€7,720.00", self.client.get(f"{self.here}/report").text)

    def test_what_was_told_before_the_price_is_said_and_not_taken_off(self):
        self.told()
        self.write("corner.gear", Gear(part="link", grade="failed"), place=FL)
        [line] = [one for one in self.lives().sheet.lines if one.item.key == ("job", "link:front_left")]
        self.write("money.line", Line(code="job", subject="link:front_left", treat="settle", disclosed=True))
        for text in (self.text("sheet"), self.client.get(f"{self.here}/report").text):
            self.assertIn("told of before the price: not taken off", " ".join(text.split()))
        sheet = self.lives().sheet
        self.assertEqual((sheet.settled, sheet.left), (0, 8000))
        self.write("money.line", Line(code="job", subject="link:front_left", treat="settle", disclosed=True,
                                      taken_off=True))  # fmt: skip
        self.assertEqual(self.lives().sheet.settled, line.amount)

    def test_a_claim_beside_its_own_findings_is_charged_once(self):
        self.told()
        self.write("corner.tyre", Tyre(depth_mm=(1.0,)), place=FL)
        before = self.lives().sheet.settled
        claim = self.write("claim.said", Claim(words="new tyres", who="advert", kind="new_tyres"))
        self.write("money.claim", ClaimPriced(of=claim, amount="50", because="worn out"))
        self.assertEqual(self.lives().sheet.settled, before)
        self.assertIn("€0.00 of it counts here: the rest stands in lines of its own", self.text("sheet"))

    def test_at_an_auction_the_sheet_says_what_comes_on_top_and_limits_stand_first(self):
        self.told()
        self.write("corner.gear", Gear(part="link", grade="failed"), place=FL)
        self.write("inspection.brief", Brief(auction=True, lot="217", fees=310, transport=95, asking_price=8000))
        sheet = self.lives().sheet
        self.assertEqual(sheet.above_hammer, sheet.settled + 405)
        text = self.text("sheet")
        self.assertIn("On top of the hammer price: €", text)
        self.assertNotIn("Asked €", text)
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("at an auction, sold as seen, lot 217", report)
        self.assertLess(report.index('id="not-looked"'), report.index('id="all-findings"'))
        self.write("inspection.brief", Brief(asking_price=8000))
        report = self.client.get(f"{self.here}/report").text
        self.assertGreater(report.index('id="not-looked"'), report.index('id="all-findings"'))

    def test_the_preparation_list_stands_apart_from_the_sheet(self):
        self.write("inspection.brief", Brief(taste="work", asking_price=8000))
        for wheel in (FL, FR):
            self.write("body.blemish", Blemish(kind="kerb", depth="metal", length_mm=80, shows_from="arm"), place=wheel)
        self.assertEqual(self.lives().sheet.settled, 0)
        for text in (self.text("preparation"), self.client.get(f"{self.here}/report").text):
            self.assertIn("Refinish 2 wheels", text)
        self.write("body.blemish", Blemish(kind="stain", shows_from="arm"), place="bonnet")
        self.assertIn("Valet, inside and out", self.text("preparation"))

    def test_parts_hard_to_get_and_seized_fixings_make_jobs_dearer(self):
        self.told()
        self.write("corner.gear", Gear(part="link", grade="failed"), place=FL)
        plain = self.lives().price(self.due("link:front_left"))
        other = self.lives().price(self.due("link:front_right"))
        self.write("corner.gear", Gear(part="link", grade="failed", seized=True), place=FL)
        self.assertGreater(self.lives().price(self.due("link:front_left")), plain)
        self.assertEqual(self.lives().price(self.due("link:front_right")), other)
        self.assertIn("Fixings seized or corroded", self.text("calendar"))
        self.write("vehicle.fact", Fact(fact="parts", value="used_only"))
        self.write("vehicle.fact", Fact(fact="seized", value=True))
        self.assertGreater(self.lives().price(self.due("link:front_right")), other)

    def test_a_good_fluid_test_stands_for_a_proof(self):
        self.told()
        self.assertEqual(self.due("brake_fluid").due, 0)
        self.write("corner.fluid", Fluid(kind="dot4", boils_c=240))
        self.assertAlmostEqual(self.due("brake_fluid").due, 12)

    def test_reasons_keep_to_the_units_of_the_reader(self):
        self.told()
        self.write("corner.tyre", Tyre(depth_mm=(4.0,), date_code="1022"), place=FL)
        text = self.text("calendar")
        self.assertIn("4 mm by gauge", text)
        self.assertIn("characteristic life 377,000 km", text.lower())
        self.write("inspection.settings", Overrides(distance="mi", depth="in32"))
        text = self.text("calendar")
        self.assertIn("5/32 in by gauge, limit 2/32 in", text)
        self.assertIn("234,257 mi", text)  # 377,000 km, the alternator
        self.assertNotRegex(text, r"\d km\b|\{distance|\{depth")

    def test_currencies_without_coins_and_with_thousandths(self):
        self.write("corner.gear", Gear(part="link", grade="failed"), place=FL)
        for currency, pattern in (("JPY", r"¥\d[\d,]*(?!\.)"), ("KWD", r"KWD\s?[\d,]+\.\d{3}")):
            self.write("inspection.brief", Brief(km_per_year=12_000, asking_price=900, currency=currency))
            self.assertRegex(self.text("sheet"), pattern)
            self.assertRegex(self.text("money"), rf"Labour at {pattern} an hour")

    def test_bad_brakes_are_one_job_and_a_disc_makes_it_the_larger_one(self):
        self.told()
        self.write("corner.brake", Brake(pad_inner_mm=8.0, cracks="heat", run_out_mm=0.3), place=FL)
        brakes = [line for line in self.lives().sheet.lines if line.item.key == ("job", "brakes:front")]
        self.assertEqual(len(brakes), 1)
        self.assertGreater(float(brakes[0].amount), 250)

    def test_own_lives_are_kept_apart_and_said(self):
        self.told()
        form = dict(
            re.findall(r'<(?:input|select)[^>]*name="(\w+)"[^>]*value="([^"]*)"', self.client.get("/settings").text)
        )
        form |= {"names": "british", "sides": "own", "film": "", "distance": "km", "depth": "mm", "temperature": "c",
                 "pressure": "bar", "zone": "UTC", "rules": "orrin", "protocol": "standard", "start": "front",
                 "direction": "left_first", "currency": "EUR", "life_years_battery": "2,5"}  # fmt: skip
        self.assertEqual(self.client.post("/settings", data=form, follow_redirects=False).status_code, 303)
        self.assertEqual(self.client.app.state.desk.settings.lives["battery"].years, 2.5)
        self.assertTrue(any("your own figures" in one for one in self.due("battery").reasons))
        answer = self.client.post("/settings", data=form | {"life_years_battery": "-1"})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("life by distance, by time, or both", answer.text)
        self.assertIn('value="-1"', answer.text)
        here = f"{self.here}/settings"
        self.client.post(here, data={"life_km_clutch": "90"}, follow_redirects=False)
        self.assertEqual(self.lives().given.own["clutch"].km, 90)
        self.assertEqual(self.lives().given.own["battery"].years, 2.5)
