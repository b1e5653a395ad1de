"""Papers: the number at every place, dated marks, records of distance, and registers to ask."""
