"""Words of inspections, kept so that a search need not fold every logbook. Derived: thrown away without loss."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Engine, func, select
from sqlalchemy.orm import Session

from hakutsu.logbook.tables import InspectionRow, SearchWordsRow


@dataclass(frozen=True, slots=True)
class Kept:
    """Words of an inspection: the key of what they were made from, the text that is searched, and what is shown."""

    inspection: UUID
    key: str
    text: str
    words: dict[str, Any]


class SearchWords:
    """The kept words of all inspections."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def keys(self) -> dict[UUID, str]:
        """From what the words of each inspection were made."""
        with Session(self._engine) as session:
            rows = session.execute(select(SearchWordsRow.inspection_id, SearchWordsRow.key))
            return {UUID(inspection): key for inspection, key in rows}

    def keep(self, made: Sequence[Kept]) -> None:
        """Keep words in the place of older ones."""
        with Session(self._engine) as session, session.begin():
            for one in made:
                row = SearchWordsRow(inspection_id=str(one.inspection), key=one.key, text=one.text, words=one.words)
                session.merge(row)

    def holding(self, parts: Sequence[str]) -> list[dict[str, Any]]:
        """What is shown of the inspections whose text holds every part, newest first."""
        found = select(SearchWordsRow.words).join(InspectionRow, InspectionRow.id == SearchWordsRow.inspection_id)
        for part in parts:
            found = found.where(func.instr(SearchWordsRow.text, part) > 0)
        with Session(self._engine) as session:
            return list(session.scalars(found.order_by(InspectionRow.opened_at.desc())))
