"""Tables of the store."""

from __future__ import annotations

from sqlalchemy import JSON, Float, ForeignKey, Integer, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Base of all tables."""


class InspectionRow(Base):
    """One inspection; everything said about it is in its entries."""

    __tablename__ = "inspection"
    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    opened_at: Mapped[str] = mapped_column(String(32))


class EntryRow(Base):
    """One entry, never changed and never removed; `draft` is the envelope as the client wrote it."""

    __tablename__ = "entry"
    __table_args__ = (UniqueConstraint("inspection_id", "seq"),)
    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    inspection_id: Mapped[str] = mapped_column(ForeignKey("inspection.id"), index=True)
    seq: Mapped[int] = mapped_column(Integer)
    by: Mapped[str] = mapped_column(String(60))
    hash: Mapped[str] = mapped_column(String(64))
    draft: Mapped[dict[str, object]] = mapped_column(JSON)


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


class SearchWordsRow(Base):
    """The words of one inspection as they were last made for searching; `key` tells from what. Derived: may be gone."""

    __tablename__ = "search_words"
    inspection_id: Mapped[str] = mapped_column(ForeignKey("inspection.id"), primary_key=True)
    key: Mapped[str] = mapped_column(Text)
    text: Mapped[str] = mapped_column(Text)
    words: Mapped[dict[str, object]] = mapped_column(JSON)
