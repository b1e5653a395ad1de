"""What is seen walking round the vehicle: blemishes and events, fit, glass and lamps, trim, rust, additions."""

from hakutsu.entries.body.fit import Closing, Fit, GapGrade
from hakutsu.entries.body.glass import Glass, GlassFault, Tint
from hakutsu.entries.body.marks import Blemish, BlemishKind, Depth, Event, EventDropped, ShowsFrom, Supply, Trial
from hakutsu.entries.body.rust import Coating, Rust, RustGrade
from hakutsu.entries.body.trim import Addition, Material, Origin, Trim, TrimState, Works

__all__ = [
    "Addition",
    "Blemish",
    "BlemishKind",
    "Closing",
    "Coating",
    "Depth",
    "Event",
    "EventDropped",
    "Fit",
    "GapGrade",
    "Glass",
    "GlassFault",
    "Material",
    "Origin",
    "Rust",
    "RustGrade",
    "ShowsFrom",
    "Supply",
    "Tint",
    "Trial",
    "Trim",
    "TrimState",
    "Works",
]
