"""Data tables: each file is read once, through a model of its own, and says of its rows their unit and their basis."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any, TypeVar, cast

from pydantic import BaseModel, ConfigDict, Field, ValidationError

Number = int | float


class Strict(BaseModel):
    """What a table is made of: frozen, with no key that nobody reads; a field is read by its name in the file too."""

    model_config = ConfigDict(frozen=True, extra="forbid", populate_by_name=True)

    def __getitem__(self, key: str) -> Any:
        """A field that is there, by its name in the file.

        Raises
        ------
        KeyError
            If there is none, or this row leaves it out.
        """
        value = getattr(self, _names(type(self)).get(key, key), None)
        if value is None:
            raise KeyError(key)
        return value

    def get(self, key: str, default: Any = None) -> Any:
        """A field by its name in the file; `default` where this row leaves it out."""
        try:
            return self[key]
        except KeyError:
            return default

    def __contains__(self, key: str) -> bool:
        """Whether this row has a field."""
        return self.get(key) is not None

    def items(self) -> list[tuple[str, Any]]:
        """Fields that are there, by their names in the file."""
        there = {key: getattr(self, name) for key, name in _names(type(self)).items() if name not in ("about", "basis")}
        return [(key, value) for key, value in there.items() if value is not None]

    def values(self) -> list[Any]:
        """What the fields that are there say."""
        return [value for _, value in self.items()]


@cache
def _names(kind: type[Strict]) -> dict[str, str]:
    """Fields of a model by their names in the file."""
    return {one.alias or name: name for name, one in kind.model_fields.items()}


class About(Strict):
    """What holds for every row that does not say otherwise: the unit of each column, and what the values rest on."""

    unit: str | dict[str, str]
    basis: str = Field(min_length=3)


class Row(Strict):
    """A row; its own basis where that differs from the table's."""

    basis: str = ""


class Table(Strict):
    """A data file."""

    about: About

    def basis_of(self, row: Row) -> str:
        """What a row rests on."""
        return row.basis or self.about.basis


TableT = TypeVar("TableT", bound=Table)


class TableError(ValueError):
    """A data file that is not what its model says."""


def read_table(room: str, name: str, model: type[TableT]) -> TableT:
    """The data file `name` of a room (a package, such as ``core.engine``) as its model; read once.

    Raises
    ------
    TableError
        If a row is missing something, has something nobody reads, or names what does not exist.
    """
    return cast(TableT, _read(room, name, model))


@cache
def _read(room: str, name: str, model: type[Table]) -> Table:
    text = (files(f"hakutsu.{room}") / "data" / f"{name}.toml").read_text(encoding="utf-8")
    try:
        return model.model_validate(tomllib.loads(text))
    except ValidationError as error:
        raise TableError(f"{room}/data/{name}.toml: {error}") from error
