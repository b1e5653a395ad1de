"""What can be written down. Importing this room registers every kind of entry: its modules are found by walking."""

from importlib import import_module
from pkgutil import walk_packages

from hakutsu.entries.envelope import Draft, Entry, Unread
from hakutsu.entries.registry import EntryError, kinds, parse_body

__all__ = ["Draft", "Entry", "EntryError", "Unread", "kinds", "parse_body"]

for _module in walk_packages(__path__, f"{__name__}."):
    import_module(_module.name)
