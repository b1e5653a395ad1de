import unittest

from hakutsu.core.claims import propose
from hakutsu.entries.claims import ClaimKind

ADVERT = """Velmora Strand estate, 128,000 km, two owners. Full service history, serviced in May!
All original paint; never been in an accident. New clutch and new tyres last year. A/C blows cold.
No rust, no warning lights. Runs and drives perfectly. Both keys. Non-smoker. Viewing at the ferry pier."""


class Proposals(unittest.TestCase):
    def kinds(self, text):
        return [one.kind for one in propose(text)]

    def test_an_advert_by_hand(self):
        found = {}
        for one in propose(ADVERT):
            found.setdefault(one.kind, []).append(one.words)
        left = set(ClaimKind) - set(found)
        self.assertEqual(left, {ClaimKind.NO_LEAKS, ClaimKind.FREE})
        self.assertEqual(found[ClaimKind.NO_ACCIDENT], ["never been in an accident"])
        self.assertEqual(found[ClaimKind.DISTANCE], ["Velmora Strand estate, 128,000 km, two owners"])

    def test_what_claims_nothing_proposes_nothing(self):
        for text in ("", "Viewing at the ferry pier.", "Please ring after six", "\n\n***\n"):
            self.assertEqual(self.kinds(text), [])

    def test_a_sentence_is_proposed_once_for_each_of_its_kinds(self):
        self.assertEqual(self.kinds("No rust. NO RUST."), [ClaimKind.NO_RUST])
        self.assertEqual(self.kinds("No rust and no leaks"), [ClaimKind.NO_LEAKS, ClaimKind.NO_RUST])

    def test_a_huge_text_ends_and_a_huge_sentence_is_cut(self):
        (one,) = propose("no rust " + "x" * 50_000)
        self.assertLessEqual(len(one.words), 400)
