"""Graded parts, ride height, proofs of age."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import KeyOf
from hakutsu.entries.corners.kinds import Note, Short
from hakutsu.entries.registry import Body, entry_kind

STEERING = ("ball_joint", "track_rod", "steering_rack", "wheel_bearing")


class Grade(StrEnum):
    """How a part stands, judged with eye and hand."""

    FRESH = "fresh"
    SOUND = "sound"
    WORN = "worn"
    FAILING = "failing"
    FAILED = "failed"


@entry_kind("corner.gear")
class Gear(Body):
    """A part of the running gear, or any part with a life, graded: by its key, how it was tested, its play [mm].

    No grade: something is wrong with it, and how bad was not told.

    `on_tyre`: what is broken lies against the tyre; `seized`: its fixings are seized or corroded.
    """

    part: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("graded part")]
    grade: Grade | None = None
    tested: Short = ""
    play_mm: Annotated[float, Field(ge=0, le=50)] | None = None
    on_tyre: bool = False
    seized: bool = False
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        play = ("steering_play",) if self.grade is Grade.FAILED and self.part in STEERING else ()
        return play + (("spring_on_tyre",) if self.on_tyre else ())


@entry_kind("corner.height", at="wheel")
class Height(Body):
    """Ride height at a corner [mm], hub centre to arch."""

    height_mm: Annotated[float, Field(gt=0, le=1500)]


@entry_kind("life.proof")
class PartProof(Body):
    """When a part was new, or something was last done: year and month, distance [km] on the meter, and the proof.

    `looks_new`: it looks new, and when it was is not known: a proof by eye.
    """

    part: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("part with a life")]
    when: Annotated[str, StringConstraints(pattern=r"^((18|19|20|21)\d{2}(-(0[1-9]|1[0-2]))?)?$")] = ""
    at_km: Annotated[float, Field(ge=0, le=3_000_000)] | None = None
    proof: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
    looks_new: bool = False

    @model_validator(mode="after")
    def _says_when(self) -> Self:
        if not self.when and self.at_km is None and not self.looks_new:
            raise ValueError("say when, at which distance, or that it looks new")
        return self
