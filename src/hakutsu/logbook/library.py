"""The library: what the inspector keeps from one inspection to the next."""

from __future__ import annotations

import logging
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from hashlib import sha256

from sqlalchemy import Engine, select
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from hakutsu.entries.film import GaugeInUse
from hakutsu.entries.registry import keyed
from hakutsu.entries.settings import Settings
from hakutsu.logbook.changes import Changes
from hakutsu.logbook.tables import GaugeRow, SettingRow
from hakutsu.logbook.trouble import words
from hakutsu.vehicle.library import LibraryFile
from hakutsu.vehicle.vocabulary import Unit

_log = logging.getLogger("hakutsu.library")
KNOWN = "library"
SETTINGS = "habits"  # what they were called when they were fewer


@dataclass(frozen=True, slots=True)
class KeptGauge:
    """A gauge record, with when it was last verified in any inspection."""

    id: int
    gauge: GaugeInUse
    verified_at: datetime | None


class Library:
    """Records of the installation, in ordinary tables."""

    def __init__(self, engine: Engine, changes: Changes) -> None:
        self._engine = engine
        self._changes = changes
        self._settings: Settings | None = None
        self._known: LibraryFile | None = None
        self._known_key: str | None = None

    @property
    def settings(self) -> Settings:
        """The settings of the account; read once, since this process alone holds the data directory.

        Where they cannot be read they are those of a new account: what was measured is shown all the same.
        """
        if self._settings is None:
            with Session(self._engine) as session:
                try:
                    row = session.get(SettingRow, SETTINGS)
                    self._settings = Settings.model_validate(keyed(Settings, row.value)) if row else Settings()
                except (DBAPIError, ValueError) as error:
                    _log.warning("the settings of the account cannot be read: the database %s", words(error))
                    self._settings = Settings()
        return self._settings

    @settings.setter
    def settings(self, settings: Settings) -> None:
        with Session(self._engine) as session, session.begin():
            session.merge(SettingRow(key=SETTINGS, value=settings.model_dump(mode="json")))
        self._settings = settings

    @property
    def known(self) -> LibraryFile:
        """What the inspector knows of variants; an empty library where none is kept, or it cannot be read."""
        if self._known is None:
            with Session(self._engine) as session:
                try:
                    row = session.get(SettingRow, KNOWN)
                    self._known = LibraryFile.model_validate(row.value) if row else LibraryFile()
                except (DBAPIError, ValueError) as error:
                    _log.warning("the library cannot be read: the database %s", words(error))
                    self._known = LibraryFile()
        return self._known

    @known.setter
    def known(self, known: LibraryFile) -> None:
        with Session(self._engine) as session, session.begin():
            session.merge(SettingRow(key=KNOWN, value=known.model_dump(mode="json")))
        self._known, self._known_key = known, None

    @property
    def known_key(self) -> str:
        """A key of what is known of variants: another one once it changed."""
        if self._known_key is None:
            self._known_key = sha256(self.known.model_dump_json().encode()).hexdigest()
        return self._known_key

    @property
    def asked(self) -> bool:
        """Whether units, region and clock of the account were ever said."""
        with Session(self._engine) as session:
            return session.get(SettingRow, SETTINGS) is not None

    @property
    def kept_gauges(self) -> tuple[tuple[int, str, str, float, float], ...]:
        """All gauges as they are stored."""
        return self._changes.kept("gauges", self._gauge_rows)

    def _gauge_rows(self) -> tuple[tuple[int, str, str, float, float], ...]:
        columns = (GaugeRow.id, GaugeRow.name, GaugeRow.unit, GaugeRow.step_um, GaugeRow.limit_um)
        with Session(self._engine) as session:
            rows = session.execute(select(*columns).order_by(GaugeRow.name))
            return tuple((row.id, row.name, row.unit, row.step_um, row.limit_um) for row in rows)

    def gauges(self, verified: Mapping[str, datetime] | None = None) -> list[KeptGauge]:
        """All gauges by name that can be read, each with when it was `verified` last."""
        try:
            rows = self.kept_gauges
        except DBAPIError as error:
            _log.warning("the saved gauges cannot be read: the database %s", words(error))
            return []
        return [
            KeptGauge(
                number, GaugeInUse(name=name, unit=Unit(unit), step_um=step_um, limit_um=limit_um),
                (verified or {}).get(name),
            )
            for number, name, unit, step_um, limit_um in rows
        ]  # fmt: skip

    def keep_gauge(self, gauge: GaugeInUse) -> None:
        """Keep a gauge; one of the same name is replaced."""
        with Session(self._engine) as session, session.begin():
            row = session.scalars(select(GaugeRow).where(GaugeRow.name == gauge.name)).first()
            row = row or GaugeRow(name=gauge.name)
            row.unit, row.step_um, row.limit_um = gauge.unit.value, gauge.step_um, gauge.limit_um
            session.add(row)

    def drop_gauge(self, gauge_id: int) -> None:
        """Keep a gauge no longer; what was measured with it stays."""
        with Session(self._engine) as session, session.begin():
            row = session.get(GaugeRow, gauge_id)
            if row is not None:
                session.delete(row)
