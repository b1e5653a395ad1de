"""What stands where on the shell sheet: codes, glyphs, readings and numbers of marks, none over another."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from math import hypot

from hakutsu.core.film import NextSpot, Observation, film_um
from hakutsu.figures.blemishes import Mark, Sign
from hakutsu.figures.placing import Box, Point, Room, around, inside, nearby
from hakutsu.vehicle.shell import Patch
from hakutsu.vehicle.units import from_um
from hakutsu.vehicle.vocabulary import ReadingStatus, Unit

TYPE_CM = 9.5
UPRIGHT_TYPE_CM = 12.5  # upright the sheet stands on a telephone, where a centimetre of the skin is fewer pixels
CODE_SHARE = 0.95  # of the type size
GLYPH_SHARE = 1.35
INSET_CM = 3.0
MOVED_CM = 5.0  # a number farther than this from where it was read has a dot there
SLACK_CM = 1.5
PILLAR_SLACK_CM = 5.0
CROWDED = 2.4  # times the room its numbers need, at which a panel is too small to be sure of them all
COVERS, NO_ROOM_FOR_COUNT = 100, 2  # what a label costs over what stands already, or without room for its count
ASIDE = (0.0, 0.5, -0.5, 1.0, -1.0, 1.5, -1.5)  # of a label in the glass beside its pillar, in its own sizes
PLACES = (0.0, 1.0, 0.5, 0.25, 0.75)
ARM = (8.0, 6.0, 2.6)  # middle, length and thickness of an arm of the sign of the next spot


@dataclass(frozen=True, slots=True)
class Label:
    """A panel's code and its glyph, none where no states are drawn; `spare` is for a count where it is crowded."""

    code: Box
    glyph: Box | None
    spare: Box | None = None

    @property
    def block(self) -> Box:
        """What they take up together."""
        every = [one for one in (self.code, self.glyph, self.spare) if one is not None]
        left, top = min(one.left for one in every), min(one.top for one in every)
        return Box(left, top, max(one.right for one in every), max(one.bottom for one in every))

    def moved(self, x: float, y: float) -> Label:
        """The label from (x, y) on, where it began at (0, 0)."""
        glyph, spare = (one and one.moved(x, y) for one in (self.glyph, self.spare))
        return Label(self.code.moved(x, y), glyph, spare)


@dataclass(frozen=True, slots=True)
class Number:
    """A reading and where its number stands; `dot` is where it was read, if that is elsewhere and free."""

    observation: Observation
    said: str
    box: Box
    dot: tuple[float, float] | None = None


@dataclass(slots=True)
class Layout:
    """Where everything stands; `more` is how many readings of a panel have no room, and where that is said; so
    `more_marks` of its marks.
    """

    size: float
    labels: dict[str, Label] = field(default_factory=dict)
    numbers: dict[str, list[Number]] = field(default_factory=dict)
    more: dict[str, tuple[int, Box]] = field(default_factory=dict)
    marks: list[tuple[Sign, Box | None]] = field(default_factory=list)
    more_marks: dict[str, tuple[int, Box]] = field(default_factory=dict)


def number_of(observation: Observation, unit: Unit) -> str:
    """A reading as it stands on the sheet."""
    film = from_um(film_um(observation), unit)
    number = f"{film:.1f}" if unit is Unit.MIL else f"{film:.0f}"
    return f"≥{number}" if observation.censored else number


def lay_out(
    readings: Mapping[str, Sequence[Observation]],
    codes: Mapping[str, str],
    patches: Mapping[str, Patch],
    unit: Unit,
    *,
    marks: Sequence[Mark] = (),
    spot: NextSpot | None = None,
    states: bool = True,
    size: float = TYPE_CM,
    baseline_um: float | None = None,
) -> Layout:
    """Place everything: signs of marks and of the next spot stand where they are, codes give way to readings, readings
    step aside within their panel, the farthest from the baseline first; what has no room is counted.
    """
    room, wished, made = Room(), Room(), Layout(size)
    signs = [Sign.of(one, patches[one.panel]) for one in marks if one.panel in patches and one.path]
    for sign in signs:
        sign.take(room)
    if spot is not None and spot.panel in patches:
        _take_cross(room, *patches[spot.panel].at(spot.u, spot.v))
    wanted = {key: _wanted(readings.get(key, ()), patches[key], unit, size) for key in codes}
    for box in (one.box for numbers in wanted.values() for one in numbers):
        wished.take(box)
    for key, code in codes.items():
        shapes = _shapes(code, size, states=states, crowded=_crowded(patches[key], len(wanted[key]), size))
        made.labels[key] = _label(shapes, patches[key], patches, room, wished)
    base = baseline_um or 0.0
    for key, numbers in wanted.items():
        telling = sorted(numbers, key=lambda one: -abs(film_um(one.observation) - base))
        _place(key, telling, patches[key], room, made)
    bounds = _bounds(patches).corners
    _number_marks(signs, room, bounds, made)
    return made


def _number_marks(signs: Sequence[Sign], room: Room, bounds: Sequence[Point], made: Layout) -> None:
    """Number the marks; where a panel has no room left, further ones look beside their signs alone."""
    size, left = made.size * CODE_SHARE, dict[str, int]()
    for sign in signs:
        panel = sign.mark.panel
        box = sign.number_box(room, size, bounds, far=panel not in left)
        if box is None:
            left[panel] = left.get(panel, 0) + 1
        made.marks.append((sign, box))
    for panel, count in left.items():
        block = made.labels[panel].block if panel in made.labels else signs[0].anchors[0]
        box = room.first(around(Box.of_words(f"+{count}", *block.middle, size)))
        if box is not None:
            made.more_marks[panel] = count, box


def _bounds(patches: Mapping[str, Patch]) -> Box:
    every = [_extent(patch.corners) for patch in patches.values()]
    left, top = min(one.left for one in every), min(one.top for one in every)
    return Box(left, top, max(one.right for one in every), max(one.bottom for one in every))


def _take_cross(room: Room, x: float, y: float) -> None:
    middle, long, thick = ARM
    for way in (-1, 1):
        room.take(Box.around(x + way * middle, y, long, thick))
        room.take(Box.around(x, y + way * middle, thick, long))


def _wanted(readings: Sequence[Observation], patch: Patch, unit: Unit, size: float) -> list[Number]:
    found = []
    for one in readings:
        if one.u is None or one.v is None or one.status is ReadingStatus.NONE:
            continue
        x, y = patch.at(one.u, one.v)
        said = number_of(one, unit)
        found.append(Number(one, said, Box.of_words(said, x, y, size)))
    return found


def _place(key: str, numbers: Sequence[Number], patch: Patch, room: Room, made: Layout) -> None:
    bounds = _bounds({"": patch})
    narrow = min(bounds.right - bounds.left, bounds.bottom - bounds.top)
    placed, left = made.numbers.setdefault(key, []), 0
    for one in numbers:
        slack = PILLAR_SLACK_CM if "pillar" in key else _sticking_out(one.box, narrow)
        box = room.first(nearby(one.box), patch.corners, slack)
        if box is None:
            left += 1
            continue
        (x, y), (a, b) = one.box.middle, box.middle
        dot = None
        if hypot(x - a, y - b) > MOVED_CM and room.free(Box.around(x, y, 2, 2)):
            room.take(Box.around(x, y, 2, 2))
            dot = (x, y)
        placed.append(Number(one.observation, one.said, box, dot))
    if left:
        label = made.labels[key]
        made.more[key] = left, label.spare or _free_beside(label, f"+{left}", room, made.size)


def _sticking_out(box: Box, narrow: float) -> float:
    """How far words may stick out of a patch so wide, evenly on both sides."""
    return max(0.0, box.right - box.left - narrow) / 2 + SLACK_CM


def _free_beside(label: Label, said: str, room: Room, size: float) -> Box:
    x, y = label.block.middle
    box = Box.of_words(said, x, y, CODE_SHARE * size)
    return room.first(around(box)) or box


def _crowded(patch: Patch, count: int, size: float) -> bool:
    box = Box.of_words("000", 0, 0, size)
    return count * (box.right - box.left) * (box.bottom - box.top) * CROWDED > patch.area_cm2


def _label(shapes: Sequence[Label], patch: Patch, patches: Mapping[str, Patch], room: Room, wished: Room) -> Label:

    def covers(one: Label) -> int:
        without = NO_ROOM_FOR_COUNT if shapes[0].spare and not one.spare else 0
        return COVERS * room.meetings(one.block) + wished.meetings(one.block) + without

    every = (one for shape in shapes for one in _spots(patch, shape))
    width = _bounds({"": patch}).right - _bounds({"": patch}).left
    fits = (one for one in every if inside(one.block, patch.corners, _sticking_out(one.block, width)))
    chosen = _least(fits, covers)
    if patch.joined and (chosen is None or covers(chosen)):
        sheet = _bounds(patches)
        glass = (one for one in _in_the_glass(patch, shapes) if _in_glass(one.block, patches, sheet))
        chosen = _least((one for one in ((chosen, *glass) if chosen else glass)), covers)
    chosen = chosen or next(_spots(patch, shapes[0]))
    for box in (chosen.code, chosen.glyph, chosen.spare):
        if box is not None:
            room.take(box)
    return chosen


def _least(candidates: Iterable[Label], cost: Callable[[Label], int]) -> Label | None:
    """The first that covers nothing, else the one that covers least."""
    found, least = None, 0
    for one in candidates:
        if (mine := cost(one)) == 0:
            return one
        if found is None or mine < least:
            found, least = one, mine
    return found


def _in_glass(box: Box, patches: Mapping[str, Patch], sheet: Box) -> bool:
    if not inside(box, sheet.corners):
        return False
    points = (box.middle, *box.corners)
    for one in patches.values():
        near = _extent(one.corners)
        if not near.meets(box):
            continue
        if any(inside(Box(x, y, x, y), one.corners, -0.5) for x, y in points):
            return False
    return True


@lru_cache(maxsize=1024)
def _extent(corners: tuple[Point, ...]) -> Box:
    xs, ys = zip(*corners, strict=True)
    return Box(min(xs), min(ys), max(xs), max(ys))


def _shapes(code: str, size: float, *, states: bool, crowded: bool) -> tuple[Label, ...]:
    """Code above its glyph, and code before its glyph, each from (0, 0); first with room for a count if crowded."""
    said = Box.of_words(code, 0, 0, CODE_SHARE * size)
    wide, high = said.right - said.left, said.bottom - said.top
    glyph = GLYPH_SHARE * size if states else 0.0
    lower, right = max(0.0, (glyph - high) / 2), wide + 1.5
    stacked = Label(Box(0, 0, wide, high), Box(0, high + 0.5, glyph, high + 0.5 + glyph) if states else None)
    flat = Label(Box(0, lower, wide, lower + high), Box(right, 0, right + glyph, glyph) if states else None)
    plain = (stacked, flat) if states else (stacked,)
    if not crowded:
        return plain
    below, after = stacked.block.bottom + 0.5, flat.block.right + 1.5
    return (
        replace(stacked, spare=Box(0, below, wide, below + high)),
        replace(flat, spare=Box(after, lower, after + wide, lower + high)),
        *plain,
    )


def _spots(patch: Patch, shape: Label) -> Iterator[Label]:
    """A label at corners, edges and in between; the upper left first."""
    box, block = _bounds({"": patch}), shape.block
    for down in PLACES:
        for along in PLACES:
            spare = box.right - box.left - 2 * INSET_CM - block.right
            x = box.left + INSET_CM + (along * spare if spare > 0 else spare / 2)
            y = box.top + INSET_CM / 2 + down * max(0.0, box.bottom - box.top - INSET_CM - block.bottom)
            yield shape.moved(x, y)


def _in_the_glass(patch: Patch, shapes: Sequence[Label]) -> Iterator[Label]:
    """Beside a patch too narrow for its code: in the glass behind it, or before it."""
    box = _bounds({"": patch})
    (x, y), flat = box.middle, box.bottom - box.top < box.right - box.left
    for shape in shapes:
        wide, high = shape.block.right, shape.block.bottom
        for way, shift, far in ((way, shift, far) for far in (0, 1) for way in (1, -1) for shift in ASIDE):
            if flat:
                reach = (box.bottom - box.top) / 2 + INSET_CM / 2 + far * high
                yield shape.moved(x - wide / 2 + shift * wide, y + (reach if way > 0 else -reach - high))
            else:
                reach = (box.right - box.left) / 2 + INSET_CM / 2 + far * wide
                yield shape.moved(x + (reach if way > 0 else -reach - wide), y - high / 2 + shift * high)
