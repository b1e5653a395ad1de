"""A logbook with one inspection open, for tests of what entries add up to."""

import tempfile
import unittest

from hakutsu.dossier import gather_dossier
from hakutsu.entries import Draft
from tests.builders import NOON, logbook_in, opened


class InspectionCase(unittest.TestCase):
    vehicle: dict[str, str] = {}

    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.logbook = logbook_in(self.directory.name)
        self.inspection = opened(self.logbook, **self.vehicle)

    def write(self, kind, body, **envelope):
        """Write an entry; returns its id."""
        draft = Draft.write(kind, body, NOON, **envelope)
        self.logbook.append(self.inspection, [draft], "Test Inspector")
        return draft.id

    def dossier(self):
        return gather_dossier(self.inspection, self.logbook.entries(self.inspection))
