"""The outside station: blemishes, fit, glass and lamps, rust, trim, additions."""
