"""The scan station: sweep, results, what is noted by hand."""
