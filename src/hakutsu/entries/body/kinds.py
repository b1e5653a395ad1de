"""What entries of the outside share."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Millimetres = Annotated[float, Field(gt=0, le=6000)]
