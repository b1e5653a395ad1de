"""Brakes: pads, discs, drums, hoses, fluid, pedal; what differs at a wheel and across an axle."""

from __future__ import annotations

from collections.abc import Mapping
from math import hypot

from hakutsu.core.beyond import chance_beyond, if_sure
from hakutsu.core.corners.tyres import corner_table
from hakutsu.core.findings import AXLES, Finding, found
from hakutsu.core.life.measured import wear_table
from hakutsu.entries.corners import (
    Brake,
    DiscCracks,
    DiscRust,
    Firm,
    Fluid,
    FluidKind,
    Hose,
    Lining,
    Method,
    Parking,
    Pedal,
    Pipe,
    Scoring,
)

TENTH_MM, TINY = 0.1, 1e-6
RANGE_OF = {2: (1.128, 0.853), 3: (1.693, 0.888)}  # mean and sd of the range of so many normal readings, in their sd
GAUGE = "with a pad gauge, the wheel off"
FLUID, PEDAL, PARKING = "brake_fluid", "brake_pedal", "parking_brake"
GOOD = "corners.brake_fluid_good"
NOT_GLYCOL = (FluidKind.SILICONE, FluidKind.MINERAL)


def brake_found(wheel: str, brake: Brake, *, regenerative: bool = False) -> list[Finding]:
    """Findings at one brake."""
    return [
        *_pad_found(wheel, brake),
        *_disc_found(wheel, brake, regenerative),
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


def _pad_found(wheel: str, brake: Brake) -> list[Finding]:
    row, seen, pads = corner_table()["pad"], [], _pads(brake)
    thin, limit = min(pads, default=None), float(wear_table().pad.limit_mm)
    if thin is not None and thin <= limit:
        end, below = f"{{depth {limit:g}}} of friction is the end", f"below {{depth {row['unsafe_mm']:g}}} of friction"
        worn = (
            found("corners.pad_unsafe", wheel, f"pad {{depth {thin}}}: unsafe", (below,))
            if thin < row["unsafe_mm"]
            else found("corners.pad_at_end", wheel, f"pad {{depth {thin}}}: change", (end,))
        )
        seen.append(if_sure(worn, chance_beyond(limit - thin, _pad_sd(brake)), GAUGE))
    if len(pads) == 2 and abs(pads[0] - pads[1]) > row["differ_mm"]:
        less = "inner" if pads[0] < pads[1] else "outer"
        words = f"{less} pad {{depth {abs(pads[0] - pads[1]):.2f}}} thinner than the other: slide or piston stuck"
        seen.append(_if_apart(found("corners.pads_uneven", wheel, words), abs(pads[0] - pads[1]), brake, brake))
    if brake.taper_mm:
        words = f"pad worn {{depth {brake.taper_mm}}} out of true: the caliper tilts"
        seen.append(found("corners.pad_taper", wheel, words))
    return seen


def _pad_sd(brake: Brake) -> float:
    """Error of a thickness of friction [mm]; a span that was told counts as by eye."""
    method = brake.pad_method if _pads(brake) else Method.EYE
    return float(wear_table().pad.sd_mm[method.value])


def _if_apart(finding: Finding, off: float, one: Brake, other: Brake) -> Finding:
    """Pads that read `off` [mm] apart, as far as the errors of both leave it sure."""
    over, sd = off - corner_table()["pad"]["differ_mm"], hypot(_pad_sd(one), _pad_sd(other))
    return if_sure(finding, chance_beyond(over, sd), GAUGE)


def _disc_found(wheel: str, brake: Brake, regenerative: bool) -> list[Finding]:
    row, seen = corner_table()["disc"], []
    least = min(brake.disc_mm, default=None)
    if least is not None and brake.disc_min_mm is None:
        words = "no minimum noted: it is cast on the disc, never guessed"
        seen.append(found("corners.disc_no_minimum", wheel, words))
    if least is not None and brake.disc_min_mm is not None and least <= brake.disc_min_mm:
        words = f"disc {{depth {least}}}, its minimum is {{depth {brake.disc_min_mm}}}"
        worn, under = found("corners.disc_at_minimum", wheel, words), brake.disc_min_mm - least
        chance = chance_beyond(under, float(wear_table().disc.sd_mm[brake.disc_method.value]))
        seen.append(if_sure(worn, chance, "with a caliper, at three points"))
    varies = _varies_mm(brake)
    if varies > row["variation_mm"]:
        shudder = found("corners.disc_varies", wheel, f"disc thickness varies by {varies:g} mm: brake shudder")
        seen.append(if_sure(shudder, _varies_for_sure(brake, varies), "with a micrometer, at eight points"))
    if brake.run_out_mm is not None and brake.run_out_mm > row["run_out_mm"]:
        words = f"disc runs out by {brake.run_out_mm:g} mm: the pedal pulses"
        seen.append(found("corners.disc_runs_out", wheel, words))
    return seen + _face_found(wheel, brake, regenerative)


def _varies_for_sure(brake: Brake, varies: float) -> float:
    """The chance that a disc varies beyond its limit; points told to a tenth come from a caliper, no micrometer."""
    row = corner_table()["disc"]
    if brake.variation_mm is not None or not _to_a_tenth(brake):
        return 1.0
    sd = float(wear_table().disc.sd_mm[brake.disc_method.value])
    usual, spread = RANGE_OF[len(brake.disc_mm)]
    return chance_beyond(varies - usual * sd - row["variation_mm"], spread * sd)


def _varies_mm(brake: Brake) -> float:
    """How much the thickness varies round a disc [mm]: as noted, or between its points.

    Points told to a tenth may differ by a tenth from rounding alone, and say nothing about hundredths.
    """
    if brake.variation_mm is not None:
        return brake.variation_mm
    spread = round(max(brake.disc_mm, default=0.0) - min(brake.disc_mm, default=0.0), 4)
    return 0.0 if _to_a_tenth(brake) and spread <= TENTH_MM else spread


def _to_a_tenth(brake: Brake) -> bool:
    return all(abs(round(one, 1) - one) < TINY for one in brake.disc_mm)


def _face_found(wheel: str, brake: Brake, regenerative: bool) -> list[Finding]:
    told = (
        (brake.cracks is DiscCracks.HEAT, "disc_heat_cracks", "fine heat cracks in the disc"),
        (brake.cracks is DiscCracks.THROUGH, "disc_cracked", "disc cracked through"),
        (brake.heat_marks, "disc_heat_marks", "blue or dark heat marks: it dragged, or was driven hard downhill"),
        (brake.scoring is Scoring.DEEP, "disc_scored", "disc deeply scored"),
        (brake.scoring is Scoring.LIGHT, "disc_scored_light", "disc lightly scored"),
    )
    seen = [found(f"corners.{code}", wheel, words) for there, code, words in told if there]
    if brake.rust not in (DiscRust.NONE, DiscRust.UNKNOWN):
        why = "the motor does most of the braking" if regenerative else "little used, or the slide sticks"
        words = f"rust on the rubbing face, {brake.rust}: {why}"
        seen.append(found(f"corners.disc_rust_{brake.rust.value}", wheel, words))
    return seen


def _drum_found(wheel: str, brake: Brake) -> list[Finding]:
    seen = []
    if brake.lining is Lining.RIVETS:
        seen.append(found("corners.drum_lining_gone", wheel, "lining down to its rivets or backing"))
    elif brake.lining is Lining.LITTLE:
        seen.append(found("corners.drum_lining_little", wheel, "little lining left, by eye"))
    elif brake.lining_mm is not None and brake.lining_mm <= corner_table()["drum"]["lining_mm"]:
        seen.append(found("corners.drum_lining_at_limit", wheel, f"lining {{depth {brake.lining_mm}}}: change"))
    if brake.drum_mm is not None and brake.drum_max_mm is not None and brake.drum_mm >= brake.drum_max_mm:
        words = f"drum {brake.drum_mm:g} mm across, its maximum is {brake.drum_max_mm:g}"
        seen.append(found("corners.drum_over_maximum", wheel, words))
    return seen


def _pipe_found(wheel: str, brake: Brake) -> list[Finding]:
    seen = []
    if brake.hose in (Hose.TO_CORD, Hose.SWELLING):
        code = "hose_swelling" if brake.hose is Hose.SWELLING else "hose_cracked"
        seen.append(found(f"corners.{code}", wheel, f"brake hose {brake.hose}"))
    elif brake.hose is Hose.HARD:
        seen.append(found("corners.hose_hard", wheel, "brake hose hardened: with the next brake job"))
    if brake.pipe in (Pipe.PITTED, Pipe.PERFORATED):
        reason = ("no hard brake test on corroded pipes",)
        seen.append(found(f"corners.pipe_{brake.pipe.value}", wheel, f"brake pipe {brake.pipe}", reason))
    elif brake.pipe is Pipe.SURFACE:
        seen.append(found("corners.pipe_surface", wheel, "surface rust on the brake pipe"))
    elif brake.pipe is Pipe.SCALE:
        seen.append(found("corners.pipe_scaling", wheel, "brake pipe scaling"))
    if brake.wet:
        seen.append(found("corners.brake_wet", wheel, "wet with brake fluid"))
    return seen


def brake_axle_found(brakes: Mapping[str, Brake]) -> list[Finding]:
    """Pads that differ left and right."""
    seen = []
    for subject, axle in AXLES.items():
        thin = [thinnest_pad(b) if (b := brakes.get(f"wheel_{axle}_{s}")) else None for s in ("left", "right")]
        if thin[0] is None or thin[1] is None:
            continue
        off = abs(thin[0] - thin[1])
        if off > corner_table()["pad"]["differ_mm"]:
            less = "left" if thin[0] < thin[1] else "right"
            words = f"{{{less}}} pads {{depth {off:.2f}}} thinner than the other side’s: slide, piston or hose"
            both = (brakes[f"wheel_{axle}_{side}"] for side in ("left", "right"))
            seen.append(_if_apart(found("corners.pads_differ", subject, words), off, *both))
    return seen


def fluid_found(fluid: Fluid) -> list[Finding]:
    """What a test of brake fluid says; the boiling point outranks the water; neither holds for silicone or mineral."""
    row, seen = corner_table()["fluid"], []
    measured = fluid.water_percent is not None or fluid.boils_c is not None
    if measured and fluid.kind in NOT_GLYCOL:
        words = f"{fluid.kind} fluid: neither water nor boiling point tells its state with these testers"
        seen.append(found("corners.brake_fluid_not_testable", FLUID, words))
    elif fluid.boils_c is not None:
        wet = float(row["boils"].get(fluid.kind.value, row["boils"]["dot4"])[1])
        words = f"brake fluid boils at {{temperature {fluid.boils_c}}}"
        kind = fluid.kind if fluid.kind.value in row["boils"] else "DOT 4, taken as usual"
        reason = f"wet minimum of {kind}: {{temperature {wet:g}}}"
        if fluid.boils_c <= wet + row["change_above_wet_c"]:
            seen.append(found("corners.brake_fluid_boils_now", FLUID, f"{words}: change now", (reason,)))
        elif fluid.boils_c <= wet + row["plan_above_wet_c"]:
            seen.append(found("corners.brake_fluid_boils_soon", FLUID, f"{words}: plan its change", (reason,)))
        else:
            seen.append(found(GOOD, FLUID, f"{words}: good", (reason,)))
    elif fluid.water_percent is not None:
        reasons = ("the reservoir is drier than the calipers",)
        words = f"{fluid.water_percent:g} % water in the brake fluid"
        if fluid.water_percent >= row["water_change_percent"]:
            seen.append(found("corners.brake_fluid_wet", FLUID, f"{words}: change", reasons))
        elif fluid.water_percent >= row["water_plan_percent"]:
            seen.append(found("corners.brake_fluid_damp", FLUID, f"{words}: plan its change", reasons))
        else:
            seen.append(found(GOOD, FLUID, f"{words}: good", reasons))
    if fluid.dark and not measured:
        seen.append(found("corners.brake_fluid_dark", FLUID, "brake fluid dark: due, whatever else"))
    if fluid.low:
        seen.append(found("corners.brake_fluid_low", FLUID, "brake fluid low: worn pads, or a leak"))
    return seen


def fluid_tests_good(fluid: Fluid) -> bool:
    """Whether a test that holds for this fluid found nothing wrong with it."""
    return any(one.code == GOOD for one in fluid_found(fluid))


def pedal_found(pedal: Pedal, brakes: Mapping[str, Brake]) -> list[Finding]:
    """What the pedal tells; a low or soft pedal and a wet pipe are one story."""
    seen = []
    wet = [wheel for wheel, brake in brakes.items() if brake.wet]
    soft = pedal.low or pedal.sinks or pedal.firm in (Firm.SPONGY, Firm.FLOOR)
    if soft and wet:
        words = "the pedal is low or soft because fluid is lost"
        reasons = tuple(f"wet at {{place {wheel}}}" for wheel in wet)
        seen.append(found("corners.pedal_fluid_lost", PEDAL, words, reasons))
    elif pedal.sinks:
        words = "pedal sinks under pressure: main cylinder, or a leak"
        seen.append(found("corners.pedal_sinks", PEDAL, words, ("held for 30 s",)))
    elif soft:
        seen.append(found("corners.pedal_soft", PEDAL, "pedal low or spongy: air, adjustment or a leak"))
    if pedal.parking is Parking.WEAK:
        seen.append(found("corners.parking_weak", PARKING, "parking brake holds weakly"))
    if pedal.parking is Parking.NOT:
        seen.append(found("corners.parking_not", PARKING, "parking brake does not hold"))
    return seen
