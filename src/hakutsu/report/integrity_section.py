"""What the report says of the logbook it rests on."""

from __future__ import annotations

from hakutsu.logbook.integrity import Checked
from hakutsu.reckoning import Reckoning


def integrity_line(reckoning: Reckoning, checked: Checked) -> str:
    """One line: how many entries, whether each follows from the one before, and what cannot be read."""
    unread = len(reckoning.dossier.unread)
    entries = len(reckoning.dossier.entries) + unread
    if checked.fault_seq is not None:
        held = f"the logbook does not hold together from entry {checked.fault_seq} on: {checked.fault}"
    else:
        held = f"each of its {entries} entries follows from the one before; last hash {checked.hash[:16]}"
    lost = (
        f"; {unread} cannot be read by this version and {'is' if unread == 1 else 'are'} left out here"
        if unread
        else ""
    )
    return f"Logbook: {held}{lost}."
