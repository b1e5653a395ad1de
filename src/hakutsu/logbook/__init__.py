"""The append-only store of entries, and the directory it lives in."""

from hakutsu.logbook.adding import Acknowledged, Refused
from hakutsu.logbook.directory import DataDirectory
from hakutsu.logbook.integrity import Integrity
from hakutsu.logbook.store import ImportUnderWay, Logbook
from hakutsu.logbook.trouble import DataTrouble, DirectoryInUse

__all__ = [
    "Acknowledged",
    "DataDirectory",
    "DataTrouble",
    "DirectoryInUse",
    "ImportUnderWay",
    "Integrity",
    "Logbook",
    "Refused",
]
