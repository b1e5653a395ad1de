"""Remaining life: what is left of parts that wear, as distance and time with intervals."""

from hakutsu.core.life.measured import Life, Quantiles, WearCase, remaining

__all__ = ["Life", "Quantiles", "WearCase", "remaining"]
