"""Brakes: pads, discs, drums, hoses, fluid, pedal; what differs at a wheel and across an axle."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from hakutsu.core.corners.found import Follows, Found
from hakutsu.core.corners.tyres import corner_table
from hakutsu.entries.corners import (
    Brake,
    DiscCracks,
    DiscRust,
    Firm,
    Fluid,
    FluidKind,
    Hose,
    Parking,
    Pedal,
    Pipe,
    Scoring,
)

TENTH_MM = 0.1
NOT_GLYCOL = (FluidKind.SILICONE, FluidKind.MINERAL)


def brake_found(wheel: str, brake: Brake, *, regenerative: bool = False) -> list[Found]:
    """Findings at one brake."""
    rubbing = [*_pad_found(wheel, brake), *_disc_found(wheel, brake, regenerative)]
    return [
        *(replace(one, friction=True) for one in rubbing),
        *_drum_found(wheel, brake),
        *_pipe_found(wheel, brake),
    ]


def _pads(brake: Brake) -> list[float]:
    return [one for one in (brake.pad_inner_mm, brake.pad_outer_mm) if one is not None]


def thinnest_pad(brake: Brake) -> float | None:
    """The thinnest friction [mm], or the middle of a range."""
    if pads := _pads(brake):
        return min(pads)
    return sum(brake.pad_range_mm) / 2 if brake.pad_range_mm else None


def _pad_found(wheel: str, brake: Brake) -> list[Found]:
    row, found, pads = corner_table()["pad"], [], _pads(brake)
    thin = min(pads, default=None)
    if thin is not None and thin < row["unsafe_mm"]:
        found.append(
            Found(wheel, f"pad {{depth {thin}}}: unsafe", Follows.SETTLE, ("below 2 mm of friction",), by_wear=True)
        )
    elif thin is not None and thin <= row["change_mm"]:
        found.append(
            Found(
                wheel, f"pad {{depth {thin}}}: change", Follows.SETTLE, ("3 mm of friction is the end",), by_wear=True
            )
        )
    if len(pads) == 2 and abs(pads[0] - pads[1]) > row["differ_mm"]:
        less = "inner" if pads[0] < pads[1] else "outer"
        words = f"{less} pad {{depth {abs(pads[0] - pads[1]):.2f}}} thinner than the other: slide or piston stuck"
        found.append(Found(wheel, words, Follows.SETTLE))
    if brake.taper_mm:
        found.append(Found(wheel, f"pad worn {{depth {brake.taper_mm}}} out of true: the caliper tilts", Follows.LOOK))
    return found


def _disc_found(wheel: str, brake: Brake, regenerative: bool) -> list[Found]:
    row, found = corner_table()["disc"], []
    least = min(brake.disc_mm, default=None)
    if least is not None and brake.disc_min_mm is None:
        found.append(Found(wheel, "no minimum noted: it is cast on the disc, never guessed", Follows.LOOK))
    if least is not None and brake.disc_min_mm is not None and least <= brake.disc_min_mm:
        words = f"disc {{depth {least}}}, its minimum is {{depth {brake.disc_min_mm}}}"
        found.append(Found(wheel, words, Follows.SETTLE, by_wear=True))
    varies = _varies_mm(brake)
    if varies > row["variation_mm"]:
        found.append(Found(wheel, f"disc thickness varies by {varies:g} mm: brake shudder", Follows.SETTLE))
    if brake.run_out_mm is not None and brake.run_out_mm > row["run_out_mm"]:
        found.append(Found(wheel, f"disc runs out by {brake.run_out_mm:g} mm: the pedal pulses", Follows.SETTLE))
    return found + _face_found(wheel, brake, regenerative)


def _varies_mm(brake: Brake) -> float:
    """How much the thickness varies round a disc [mm]: as noted, or between its points.

    Points told to a tenth may differ by a tenth from rounding alone, and say nothing about hundredths.
    """
    if brake.variation_mm is not None:
        return brake.variation_mm
    spread = round(max(brake.disc_mm, default=0.0) - min(brake.disc_mm, default=0.0), 4)
    to_a_tenth = all(abs(round(one, 1) - one) < 1e-6 for one in brake.disc_mm)
    return 0.0 if to_a_tenth and spread <= TENTH_MM else spread


def _face_found(wheel: str, brake: Brake, regenerative: bool) -> list[Found]:
    seen = (
        (brake.cracks is DiscCracks.HEAT, "fine heat cracks in the disc", Follows.LOOK),
        (brake.cracks is DiscCracks.THROUGH, "disc cracked through", Follows.SETTLE),
        (brake.heat_marks, "blue or dark heat marks: it dragged, or was driven hard downhill", Follows.LOOK),
        (brake.scoring is Scoring.DEEP, "disc deeply scored", Follows.SETTLE),
    )
    found = [Found(wheel, words, follows) for there, words, follows in seen if there]
    if brake.rust is not DiscRust.NONE:
        why = "the motor does most of the braking" if regenerative else "little used, or the slide sticks"
        follows = Follows.SETTLE if brake.rust is DiscRust.DEEP else Follows.LOOK
        found.append(Found(wheel, f"rust on the rubbing face, {brake.rust}: {why}", follows))
    return found


def _drum_found(wheel: str, brake: Brake) -> list[Found]:
    found = []
    if brake.lining_mm is not None and brake.lining_mm <= corner_table()["drum"]["lining_mm"]:
        found.append(Found(wheel, f"lining {{depth {brake.lining_mm}}}: change", Follows.SETTLE))
    if brake.drum_mm is not None and brake.drum_max_mm is not None and brake.drum_mm >= brake.drum_max_mm:
        words = f"drum {brake.drum_mm:g} mm across, its maximum is {brake.drum_max_mm:g}"
        found.append(Found(wheel, words, Follows.SETTLE))
    return found


def _pipe_found(wheel: str, brake: Brake) -> list[Found]:
    found = []
    if brake.hose in (Hose.TO_CORD, Hose.SWELLING):
        found.append(Found(wheel, f"brake hose {brake.hose}", Follows.SETTLE))
    elif brake.hose is Hose.HARD:
        found.append(Found(wheel, "brake hose hardened: with the next brake job", Follows.BUDGET))
    if brake.pipe in (Pipe.PITTED, Pipe.PERFORATED):
        reason = ("no hard brake test on corroded pipes",)
        found.append(Found(wheel, f"brake pipe {brake.pipe}", Follows.SETTLE, reason))
    elif brake.pipe is Pipe.SCALE:
        found.append(Found(wheel, "brake pipe scaling", Follows.BUDGET))
    if brake.wet:
        found.append(Found(wheel, "wet with brake fluid", Follows.SETTLE))
    return found


def brake_axle_found(brakes: Mapping[str, Brake]) -> list[Found]:
    """Pads that differ left and right."""
    found = []
    for axle in ("front", "rear"):
        thin = [thinnest_pad(b) if (b := brakes.get(f"wheel_{axle}_{s}")) else None for s in ("left", "right")]
        if thin[0] is None or thin[1] is None:
            continue
        off = abs(thin[0] - thin[1])
        if off > corner_table()["pad"]["differ_mm"]:
            less = "left" if thin[0] < thin[1] else "right"
            words = f"{{{less}}} pads {{depth {off:.2f}}} thinner than the other side’s: slide, piston or hose"
            found.append(Found(axle, words, Follows.SETTLE, friction=True))
    return found


def fluid_found(fluid: Fluid) -> list[Found]:
    """What a test of brake fluid says; the boiling point outranks the water; neither holds for silicone or mineral."""
    row, found = corner_table()["fluid"], []
    measured = fluid.water_percent is not None or fluid.boils_c is not None
    if measured and fluid.kind in NOT_GLYCOL:
        words = f"{fluid.kind} fluid: neither water nor boiling point tells its state with these testers"
        found.append(Found("", words, Follows.NOTE))
    elif fluid.boils_c is not None:
        wet = float(row["boils"].get(fluid.kind.value, row["boils"]["DOT 4"])[1])
        words = f"brake fluid boils at {{temperature {fluid.boils_c}}}"
        kind = fluid.kind if fluid.kind.value in row["boils"] else "DOT 4, taken as usual"
        reason = f"wet minimum of {kind}: {{temperature {wet:g}}}"
        if fluid.boils_c <= wet + row["change_above_wet_c"]:
            found.append(Found("", f"{words}: change now", Follows.SETTLE, (reason,)))
        elif fluid.boils_c <= wet + row["plan_above_wet_c"]:
            found.append(Found("", f"{words}: plan its change", Follows.BUDGET, (reason,)))
        else:
            found.append(Found("", f"{words}: good", Follows.NOTE, (reason,)))
    elif fluid.water_percent is not None:
        reasons = ("the reservoir is drier than the calipers",)
        words = f"{fluid.water_percent:g} % water in the brake fluid"
        if fluid.water_percent >= row["water_change_percent"]:
            found.append(Found("", f"{words}: change", Follows.SETTLE, reasons))
        elif fluid.water_percent >= row["water_plan_percent"]:
            found.append(Found("", f"{words}: plan its change", Follows.BUDGET, reasons))
        else:
            found.append(Found("", f"{words}: good", Follows.NOTE, reasons))
    if fluid.dark and not measured:
        found.append(Found("", "brake fluid dark: due, whatever else", Follows.BUDGET))
    if fluid.low:
        found.append(Found("", "brake fluid low: worn pads, or a leak", Follows.LOOK))
    return found


def fluid_tests_good(fluid: Fluid) -> bool:
    """Whether a test that holds for this fluid found nothing wrong with it."""
    found = fluid_found(fluid)
    return bool(found) and fluid.kind not in NOT_GLYCOL and found[0].follows is Follows.NOTE


def pedal_found(pedal: Pedal, brakes: Mapping[str, Brake]) -> list[Found]:
    """What the pedal tells; a low or soft pedal and a wet pipe are one story."""
    found = []
    wet = [wheel for wheel, brake in brakes.items() if brake.wet]
    soft = pedal.low or pedal.sinks or pedal.firm in (Firm.SPONGY, Firm.FLOOR)
    if soft and wet:
        words = "the pedal is low or soft because fluid is lost"
        found.append(Found("", words, Follows.SETTLE, tuple(f"wet at {{place {wheel}}}" for wheel in wet)))
    elif pedal.sinks:
        words = "pedal sinks under pressure: main cylinder, or a leak"
        found.append(Found("", words, Follows.SETTLE, ("held for 30 s",)))
    elif soft:
        found.append(Found("", "pedal low or spongy: air, adjustment or a leak", Follows.SETTLE))
    if pedal.parking is Parking.WEAK:
        found.append(Found("", "parking brake holds weakly", Follows.SETTLE))
    if pedal.parking is Parking.NOT:
        found.append(Found("", "parking brake does not hold", Follows.SETTLE))
    return found
