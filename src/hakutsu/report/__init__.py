"""The report: entries in words, its sections, its template. Wordings and sections are found by walking this room."""

from importlib import import_module
from pkgutil import iter_modules

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")
