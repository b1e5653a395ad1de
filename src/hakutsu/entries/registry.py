"""Kinds of entry: one Pydantic body model each, with a version and upgrades from older versions."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from hakutsu.vehicle.panels import panels

Upgrade = Callable[[dict[str, Any]], dict[str, Any]]


class EntryError(ValueError):
    """An entry that cannot be accepted: which field, and what to do about it."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message)
        self.field = field_name
        self.message = message


class Body(BaseModel):
    """Base of every entry body: frozen, and no unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    def causes(self) -> tuple[str, ...]:
        """Causes of a stand-down that what is written down here raises by itself."""
        return ()


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of entry: its body model, its current version, and whether its place must be a panel."""

    name: str
    model: type[Body]
    version: int = 1
    on_panel: bool = False
    upgrades: Mapping[int, Upgrade] = field(default_factory=dict)


_kinds: dict[str, Kind] = {}
BodyT = TypeVar("BodyT", bound=Body)


def kinds() -> dict[str, Kind]:
    """All registered kinds by name."""
    return dict(_kinds)


def entry_kind(
    name: str, *, version: int = 1, on_panel: bool = False, upgrades: Mapping[int, Upgrade] | None = None
) -> Callable[[type[BodyT]], type[BodyT]]:
    """Register the decorated model as the body of the kind `name`.

    `upgrades[n]` turns a raw body of version n into one of version n + 1.
    """

    def register(model: type[BodyT]) -> type[BodyT]:
        _kinds[name] = Kind(name, model, version, on_panel, upgrades or {})
        return model

    return register


def _kind(name: str) -> Kind:
    if name not in _kinds:
        raise EntryError("kind", f"“{name}” is not a kind of entry this version knows")
    return _kinds[name]


def parse_body(kind_name: str, version: int, raw: Mapping[str, Any]) -> Body:
    """Read a raw body of any past version as the kind's current model.

    Raises
    ------
    EntryError
        If the kind or version is unknown, or a field does not hold; the message names the field.
    """
    kind = _kind(kind_name)
    if not 1 <= version <= kind.version:
        raise EntryError("version", f"version {version} of {kind_name} is not known here; update Hakutsu")
    body = dict(raw)
    for step in range(version, kind.version):
        body = kind.upgrades[step](body)
    try:
        return kind.model.model_validate(body)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"]) or "body"
        raise EntryError(where, first["msg"].removeprefix("Value error, ")) from error


def check_place(kind_name: str, place: str | None) -> None:
    """Refuse an entry that must lie on a panel and does not.

    Raises
    ------
    EntryError
        If the kind needs a panel and `place` is none.
    """
    if _kind(kind_name).on_panel and place not in panels():
        raise EntryError("place", f"“{place}” is not a panel" if place else "say on which panel")
