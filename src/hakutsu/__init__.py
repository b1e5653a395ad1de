"""Hakutsu: the independent vehicle inspector's workbench."""

__version__ = "0.8.0"
