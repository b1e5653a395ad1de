"""What is said about one vehicle when its inspection is opened."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from hakutsu.vehicle.panels import body_styles, default_substrate, panels, walk_order
from hakutsu.vehicle.vocabulary import Finish, Keys, Paint, SteeringSide, Substrate

Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]


class VehicleDescription(BaseModel):
    """The vehicle's key facts; panels and substrates follow from the body style unless edited.

    `substrates` holds only what differs from the usual; `not_fitted` and `also_fitted` edit the panel list.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    registration: Line = ""
    colour: Line = ""
    finish: Finish = Finish.FACTORY
    paint: Paint = Paint.UNKNOWN
    body_style: Annotated[str, StringConstraints(max_length=60)] = "hatch"
    doors: Annotated[int, Field(ge=1, le=6)] = 5
    steering: SteeringSide = SteeringSide.RIGHT
    substrates: Annotated[dict[str, Substrate], Field(max_length=200)] = {}
    not_fitted: Keys = ()
    also_fitted: Keys = ()

    @model_validator(mode="after")
    def _known_words(self) -> Self:
        style = body_styles().get(self.body_style)
        if style is None:
            raise ValueError(f"body style “{self.body_style}” is not known; use one of {', '.join(body_styles())}")
        if self.doors not in style.doors:
            usual = " or ".join(str(n) for n in style.doors)
            raise ValueError(f"{style.name} comes with {usual} doors, not {self.doors}")
        for key in (*self.substrates, *self.not_fitted, *self.also_fitted):
            if key not in panels():
                raise ValueError(f"panel “{key}” is not known")
        return self

    @property
    def kind(self) -> str:
        """Make, the first word of its name, and colour, by which vehicles are alike; empty where none was said."""
        return f"{self.name.split()[0]} {' '.join(self.colour.split())}".casefold() if self.colour else ""

    def panel_keys(self) -> list[str]:
        """Fitted panels in walk order; panels added by hand come last."""
        usual = walk_order(self.body_style, self.doors)
        keys = [*usual, *(key for key in self.also_fitted if key not in usual)]
        return [key for key in keys if key not in self.not_fitted]

    def substrate(self, key: str) -> Substrate:
        """Substrate of one panel."""
        return self.substrates.get(key, default_substrate(key))
