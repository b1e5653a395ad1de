"""Rules of papers and numbers: identity, dates, distance."""
