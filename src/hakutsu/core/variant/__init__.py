"""Rules of the variant: what its features tell together."""
