"""Open formats in and out: film surveys as CSV, analyses as JSON."""
