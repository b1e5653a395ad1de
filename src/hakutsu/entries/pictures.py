"""Pictures, clips and sound: taken, described, annotated. Their bytes lie outside the database, named by SHA-256."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from hakutsu.entries.bounds import Several, Sha256
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed

Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
Unit = Annotated[float, Field(ge=0, le=1)]
MOST_SIZE = 10**12
Pixels = Annotated[int, Field(ge=0, le=100_000_000)]


class Looks(Keyed):
    """How true a picture is to what the eye saw."""

    AS_SEEN = "as_seen", "as seen"
    WORSE = "worse", "looks worse"
    BETTER = "better", "looks better"


class PictureKind(StrEnum):
    """What a file holds."""

    STILL = "still"
    CLIP = "clip"
    SOUND = "sound"


@entry_kind("picture.taken", by_upload=True)
class Picture(Body):
    """A picture, clip or sound, kept byte for byte; `of` is the entry it was taken for."""

    sha256: Sha256
    name: Annotated[str, StringConstraints(max_length=200)] = ""
    kind: PictureKind = PictureKind.STILL
    mime: Annotated[str, StringConstraints(max_length=60)]
    size: Annotated[int, Field(gt=0, le=MOST_SIZE)]
    width: Pixels = 0
    height: Pixels = 0
    of: UUID | None = None
    tags: Several[Tag] = ()


@entry_kind("picture.described", version=2, upgrades={1: to_keys})
class Described(Body):
    """Tags, how true it is, and words of the picture `of`; a later one replaces it."""

    of: UUID
    tags: Several[Tag] = ()
    looks: Looks = Looks.AS_SEEN
    words: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""


class Shape(StrEnum):
    """What a mark on a picture is."""

    ARROW = "arrow"
    RING = "ring"
    TEXT = "text"


class Annotation(Body):
    """One mark: an arrow from the first point to the second, a ring about the first through the second, a text at the
    first; points in shares of width and height.
    """

    shape: Shape
    points: Annotated[tuple[tuple[Unit, Unit], ...], Field(min_length=1, max_length=2)]
    text: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""


@entry_kind("picture.annotated")
class Marked(Body):
    """All marks on the picture `of`, beside its bytes and never in them; a later entry replaces them."""

    of: UUID
    marks: Annotated[tuple[Annotation, ...], Field(max_length=40)] = ()
