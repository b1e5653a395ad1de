"""What the rules make of the underside and of leaks."""
