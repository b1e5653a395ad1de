"""Tables of the store."""

from __future__ import annotations

from sqlalchemy import JSON, Float, ForeignKey, Integer, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Base of all tables."""


class InspectionRow(Base):
    """One inspection; everything said about it is in its entries.

    While an import is under way `importing_from` is the number of the last entry before it: what lies behind is not
    shown, and cleared if the import never ends. `imported_tip` is the last hash of the logbook it was imported from.
    """

    __tablename__ = "inspection"
    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    opened_at: Mapped[str] = mapped_column(String(32))
    importing_from: Mapped[int | None] = mapped_column(Integer)
    imported_tip: Mapped[str | None] = mapped_column(String(64))


class EntryRow(Base):
    """One entry, never changed and never removed; `draft` is the envelope as the client wrote it, to the character
    what `hash` was made of under `hash_version` 2.
    """

    __tablename__ = "entry"
    __table_args__ = (UniqueConstraint("inspection_id", "id"),)
    inspection_id: Mapped[str] = mapped_column(ForeignKey("inspection.id"), primary_key=True)
    seq: Mapped[int] = mapped_column(Integer, primary_key=True)
    id: Mapped[str] = mapped_column(String(36))
    by: Mapped[str] = mapped_column(String(60))
    hash: Mapped[str] = mapped_column(String(64))
    hash_version: Mapped[int] = mapped_column(Integer)
    draft: Mapped[str] = mapped_column(Text)


class CheckedRow(Base):
    """How far the chain of an inspection was checked: the last entry that holds, its hash, when, and what does not."""

    __tablename__ = "checked"
    inspection_id: Mapped[str] = mapped_column(ForeignKey("inspection.id"), primary_key=True)
    seq: Mapped[int] = mapped_column(Integer)
    hash: Mapped[str] = mapped_column(String(64))
    at: Mapped[str] = mapped_column(String(32))
    fault_seq: Mapped[int | None] = mapped_column(Integer)
    fault: Mapped[str] = mapped_column(String(200))


class SettingRow(Base):
    """A setting of this installation, such as the name of its one local account."""

    __tablename__ = "setting"
    key: Mapped[str] = mapped_column(String(60), primary_key=True)
    value: Mapped[object] = mapped_column(JSON)


class GaugeRow(Base):
    """A film gauge the inspector keeps: its display unit and step [µm], and the limit of its range [µm]."""

    __tablename__ = "gauge"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(60), unique=True)
    unit: Mapped[str] = mapped_column(String(8))
    step_um: Mapped[float] = mapped_column(Float)
    limit_um: Mapped[float] = mapped_column(Float)
