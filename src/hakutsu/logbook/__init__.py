"""The append-only store of entries, and the directory it lives in."""

from hakutsu.logbook.directory import DataDirectory, DirectoryInUse
from hakutsu.logbook.store import Acknowledged, Logbook, Refused

__all__ = ["Acknowledged", "DataDirectory", "DirectoryInUse", "Logbook", "Refused"]
