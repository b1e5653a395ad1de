"""The report: what a buyer reads."""
