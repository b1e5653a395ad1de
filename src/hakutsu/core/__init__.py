"""The rules of the trade: pure functions and small dataclasses, one package per subject."""
