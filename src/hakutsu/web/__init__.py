"""Pages over the logbook: they render, and change things only by appending entries."""
