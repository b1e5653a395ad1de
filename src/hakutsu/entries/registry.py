"""Kinds of entry: one Pydantic body model each, with a version and upgrades from older versions."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from typing import Any, Literal, TypeVar, get_args

from pydantic import BaseModel, ConfigDict, ValidationError

from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import CORNERS_OF, SPARE, WHEELS, places
from hakutsu.vehicle.road import road_looks
from hakutsu.vehicle.scan import SCAN_LOOKS
from hakutsu.vehicle.tables import Table, read_table
from hakutsu.vehicle.under import zones

Where = Literal["panel", "surface", "wheel", "corner", "somewhere"]
WANTED = {"panel": "a panel", "surface": "a panel or part"}
Upgrade = Callable[[dict[str, Any]], dict[str, Any]]


def to_keys(raw: dict[str, Any]) -> dict[str, Any]:
    """Marks a version whose chosen values were stored in words: `entry_kind` puts `keyed` of its model in its place."""
    return raw


class EntryError(ValueError):
    """An entry that cannot be accepted: which field, and what to do about it."""

    def __init__(self, field_name: str, message: str) -> None:
        super().__init__(message)
        self.field = field_name
        self.message = message


class Body(BaseModel):
    """Base of every entry body: frozen, and no unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def causes(self) -> tuple[str, ...]:
        """Causes of a stand-down that what is written down here raises by itself."""
        return ()

    def cause_note(self) -> str:
        """What a stand-down raised by this entry says beside its cause."""
        return ""


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of entry: its body model, its current version, where it belongs if it does not belong anywhere, and
    whether only an upload writes it.
    """

    name: str
    model: type[Body]
    version: int = 1
    at: Where | None = None
    upgrades: Mapping[int, Upgrade] = field(default_factory=dict)
    by_upload: bool = False


_kinds: dict[str, Kind] = {}
BodyT = TypeVar("BodyT", bound=Body)


def kinds() -> dict[str, Kind]:
    """All registered kinds by name."""
    return dict(_kinds)


def entry_kind(
    name: str,
    *,
    version: int = 1,
    at: Where | None = None,
    upgrades: Mapping[int, Upgrade] | None = None,
    by_upload: bool = False,
) -> Callable[[type[BodyT]], type[BodyT]]:
    """Register the decorated model as the body of the kind `name`.

    `at` says where an entry of it must lie: on a panel, on a panel or outside part, at one of four wheels, at a corner
    (the spare among them), or somewhere that is named. A kind written `by_upload` comes with a file, never as an entry
    by itself. `upgrades[n]` turns a raw body of version n into one of version n + 1; `to_keys` stands for words that
    became keys.
    """

    def register(model: type[BodyT]) -> type[BodyT]:
        steps = {step: _keyed_by(model) if one is to_keys else one for step, one in (upgrades or {}).items()}
        _kinds[name] = Kind(name, model, version, at, steps, by_upload)
        return model

    return register


def _keyed_by(model: type[BaseModel]) -> Upgrade:
    return lambda raw: keyed(model, raw)


class OldWords(Table):
    """old_words.toml: by enumeration, the words each key was stored by."""

    enumeration: dict[str, dict[str, str]]


def _key_of_words(known: type[Keyed], raw: Any) -> Any:
    """The key of a member by the words it had when keys came, whatever it is called today, or by those of today."""
    if not isinstance(raw, str):
        return raw
    old = read_table("entries", "old_words", OldWords).enumeration.get(known.__name__, {}).get(raw)
    if old is not None and any(one.value == old for one in known):
        return old
    return next((one.value for one in known if one.words == raw), raw)


def keyed(annotation: Any, raw: Any) -> Any:
    """A raw value of a type with every word of a keyed enumeration in it replaced by its key; all else as it is."""
    if isinstance(annotation, type) and issubclass(annotation, Keyed):
        return _key_of_words(annotation, raw)
    if isinstance(annotation, type) and issubclass(annotation, BaseModel) and isinstance(raw, dict):
        fields = annotation.model_fields
        return {key: keyed(fields[key].annotation, one) if key in fields else one for key, one in raw.items()}
    inside = [one for one in get_args(annotation) if one is not Ellipsis]
    if isinstance(raw, list):
        return [_first_keyed(inside, one) for one in raw]
    if isinstance(raw, dict):
        return {key: _first_keyed(inside, one) for key, one in raw.items()}
    return _first_keyed(inside, raw)


def _first_keyed(annotations: Sequence[Any], raw: Any) -> Any:
    """By the first of some types that makes something else of it."""
    made = (keyed(one, raw) for one in annotations)
    return next((one for one in made if one != raw), raw)


def version_of(kind_name: str, raw: Any) -> int:
    """The newest version of a kind that reads a body; the kind's own where none does, and 1 of an unknown kind."""
    kind = _kinds.get(kind_name)
    if kind is None or not isinstance(raw, dict):
        return kind.version if kind else 1
    for version in range(kind.version, 0, -1):
        try:
            parse_body(kind_name, version, raw)
        except EntryError:
            continue
        return version
    return kind.version


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
        try:
            body = kind.upgrades[step](body)
        except (LookupError, TypeError, ValueError, AttributeError) as error:
            raise EntryError("body", f"not the body of a {kind_name} of version {step}") from error
    try:
        return kind.model.model_validate(body)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"]) or "body"
        raise EntryError(where, first["msg"].removeprefix("Value error, ")) from error
    except (ArithmeticError, LookupError, TypeError) as error:  # a check of our own that met what it did not expect
        raise EntryError("body", "not understood") from error


@cache
def anywhere() -> frozenset[str]:
    """Every key an entry's place may be: places, panels, other parts outside, zones below, things to try or look at."""
    looks = {f"engine_{key}" for key in engine_looks()} | {f"function_{key}" for key in equipment()}
    looks |= {*SCAN_LOOKS, *road_looks()}
    looks |= {f"cabin_{key}" for key in (*cabin_parts(), "all_looked", "all_inventory")}
    return frozenset({*places(), *CORNERS_OF, *panels(), *parts(), *zones(), *equipment(), *looks})


def belongs(kind_name: str, place: str | None) -> bool:
    """Whether an entry of this kind may lie at this place."""
    match _kind(kind_name).at:
        case "panel":
            return place in panels()
        case "surface":
            return place in panels() or place in parts()
        case "wheel":
            return place in WHEELS or place in CORNERS_OF
        case "corner":
            return place in WHEELS or place == SPARE or place in CORNERS_OF
        case "somewhere":
            return bool(place)
    return True


def check_place(kind_name: str, place: str | None) -> None:
    """Refuse an entry that does not belong where it lies, or lies nowhere on a vehicle.

    Raises
    ------
    EntryError
        If the kind needs a panel, a wheel, a corner (the spare is one) or any place, and `place` is not one.
    """
    if place is not None and place not in anywhere():
        raise EntryError("place", f"“{place[:60]}” is no place on a vehicle")
    if belongs(kind_name, place):
        return
    at = _kind(kind_name).at
    if at == "somewhere":
        raise EntryError("place", "say where")
    asked, wanted = ("on which", WANTED[at]) if at in WANTED else ("at which", f"a {at}")
    raise EntryError("place", f"“{place}” is not {wanted}" if place else f"say {asked} {wanted.removeprefix('a ')}")
