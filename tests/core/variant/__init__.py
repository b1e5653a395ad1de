"""Rules of the variant."""
