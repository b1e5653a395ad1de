"""The underside station: zones and leaks."""
