from decimal import Decimal

from tests.web.case import RoundCase


class Claims(RoundCase):
    def said(self):
        return [(claim.words, claim.kind.value) for _, claim in self.dossier().claims.said]

    def test_proposals_are_taken_only_when_accepted(self):
        text = self.client.post(f"{self.here}/claims/advert", data={"advert": "No rust. Two keys. Blue."}).text
        self.assertIn("Proposed: 2", text)
        self.assertEqual(self.said(), [])
        self.client.post(f"{self.here}/claims", data={"accept": ["no_rust|No rust"]})
        self.assertEqual(self.said(), [("No rust", "no_rust")])
        again = self.client.post(f"{self.here}/claims/advert", data={"advert": "No rust. Two keys."}).text
        self.assertIn("Proposed: 1", again)

    def test_one_is_written_down_and_dropped_again(self):
        data = {"words": "belt done at 90,000", "who": "seller", "when": "on the phone", "kind": "replaced"}
        self.client.post(f"{self.here}/claims", data=data)
        self.assertIn("on the phone", self.client.get(f"{self.here}/claims").text)
        (entry, _) = self.dossier().claims.said[0]
        self.client.post(f"{self.here}/claims/{entry.id}/drop")
        self.assertEqual(self.said(), [])

    def test_what_is_no_claim_is_refused_and_what_was_typed_stays(self):
        answer = self.client.post(f"{self.here}/claims", data={"words": "w" * 401})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("w" * 401, answer.text)
        huge = self.client.post(f"{self.here}/claims/advert", data={"advert": "no rust " * 3000})
        self.assertEqual(huge.status_code, 422)
        self.assertIn("At most 20,000", huge.text)


class Brief(RoundCase):
    VALUES = {"name": "Pellin Mote", "finish": "factory", "body_style": "hatch", "doors": "5", "steering": "right",
              "taste": "tidy", "protocol": "standard"}  # fmt: skip

    def save(self, **more):
        text = self.client.get(f"{self.here}/vehicle").text
        basis = text.split('name="basis" value="')[1].split('"')[0]
        data = {**self.VALUES, "basis": basis, **more}
        return self.client.post(f"{self.here}/vehicle", data=data, follow_redirects=False)

    def test_money_deal_breakers_and_two_sets_of_factors(self):
        answer = self.save(
            asking_price="8 500", budget="9000.50", currency="gbp", deal_breakers="structural rust\n\nno keys",
            use_factors_salt="yes", past_factors_towing="yes",
        )  # fmt: skip
        self.assertEqual(answer.status_code, 303)
        brief = self.dossier().opening.brief
        self.assertEqual((brief.asking_price, brief.budget, brief.currency), (Decimal(8500), Decimal("9000.5"), "GBP"))
        self.assertEqual(brief.deal_breakers, ("structural rust", "no keys"))
        self.assertEqual((brief.use_factors, brief.past_factors), (("salt",), ("towing",)))
        self.assertIn("structural rust", self.client.get(f"{self.here}/vehicle").text)

    def test_a_price_in_words_is_refused_at_its_field_and_nothing_typed_is_lost(self):
        answer = self.save(asking_price="eight thousand", deal_breakers="structural rust")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("in figures", answer.text)
        self.assertIn('value="eight thousand"', answer.text)
        self.assertIn("structural rust", answer.text)
        self.assertIsNone(self.dossier().opening.brief.asking_price)

    def test_ten_thousand_characters_in_a_name_are_refused_and_kept(self):
        answer = self.save(name="n" * 10_000)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("n" * 10_000, answer.text)
        self.assertIn("At most 120 characters; this has 10,000.", answer.text)
