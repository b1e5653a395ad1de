"""Hakutsu: the independent vehicle inspector's workbench."""

__version__ = "0.6.1"
