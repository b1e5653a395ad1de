"""What can be written down. Importing this room registers every kind of entry."""

from hakutsu.entries import body, claims, day, film, follow_up, general, hazards, opening, pictures, settings, timers
from hakutsu.entries.envelope import Draft, Entry
from hakutsu.entries.registry import EntryError, kinds, parse_body

__all__ = [
    "Draft",
    "Entry",
    "EntryError",
    "body",
    "claims",
    "day",
    "film",
    "follow_up",
    "general",
    "hazards",
    "kinds",
    "opening",
    "parse_body",
    "pictures",
    "settings",
    "timers",
]
