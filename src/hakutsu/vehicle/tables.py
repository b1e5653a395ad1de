"""Data tables: each file is read once, through a model of its own, and says of its rows their unit and their basis."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import TypeVar, cast

from pydantic import BaseModel, ConfigDict, Field, ValidationError


class Strict(BaseModel):
    """What a table is made of: frozen, and with no key that nobody reads."""

    model_config = ConfigDict(frozen=True, extra="forbid", arbitrary_types_allowed=True)


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


def table(room: str, name: str, model: type[TableT]) -> TableT:
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
