"""Ask control units and gather what they answer: one transport stack a unit, and nobody asked while somebody answers.

References
----------
ISO 15765-2 (segmented answers, flow control, N_Cr), ISO 14229-2 (P2, and P2* after the negative response 78).
"""

from __future__ import annotations

import logging
import time
from collections import deque
from collections.abc import Callable, Collection
from dataclasses import dataclass, field

import isotp

from hakutsu.instruments.diagnostic.addresses import FUNCTIONAL, Unit, unit_of
from hakutsu.instruments.diagnostic.bus import Bus
from hakutsu.instruments.diagnostic.services import FRAME, PADDING, framed

P2_SECONDS, LATENCY_SECONDS, P2_PENDING_SECONDS = 0.05, 0.15, 5.0
N_CR_MS = 1000
QUIET_SECONDS = 0.1  # after a broken answer, until its unit is taken to be done
MOST_PENDING_SECONDS = 15.0  # in which a unit may ask for more time, as often as it likes
NEGATIVE, PENDING = 0x7F, 0x78
ANSWER = 0x40
STEP_SECONDS = 0.02
logging.getLogger("isotp").setLevel(logging.CRITICAL)  # what goes wrong is told as a problem of its unit
_PARAMETERS = {
    "stmin": 0,
    "blocksize": 0,
    "tx_padding": PADDING,
    "tx_data_min_length": FRAME,
    "rx_consecutive_frame_timeout": N_CR_MS,
    "max_frame_size": 4095,
}


@dataclass(frozen=True, slots=True)
class Answer:
    """What a unit answered: a payload, or none with what went wrong; `refused` is its negative response code."""

    payload: bytes | None = None
    trouble: str = ""
    refused: int | None = None

    @property
    def silent(self) -> bool:
        """Whether nothing came at all."""
        return self.payload is None and not self.trouble and self.refused is None


SILENCE = Answer()


@dataclass
class _Stack:
    """One unit's side of an exchange."""

    unit: Unit
    send: Callable[[Unit, bytes], None]
    answer: Answer | None = None
    until: float = 0.0
    pending: float = 0.0  # since when it has asked for more time
    trouble: str = ""
    frames: deque[isotp.CanMessage] = field(default_factory=deque)

    def __post_init__(self) -> None:
        mode = isotp.AddressingMode.Normal_29bits if self.unit.extended else isotp.AddressingMode.Normal_11bits
        address = isotp.Address(mode, txid=self.unit.asked, rxid=self.unit.answers)
        self.layer = isotp.TransportLayerLogic(self._next, self._put, address, self._broke, dict(_PARAMETERS))

    def _next(self, _: float) -> isotp.CanMessage | None:
        return self.frames.popleft() if self.frames else None

    def _put(self, message: isotp.CanMessage) -> None:
        self.send(self.unit, bytes(message.data))

    def _broke(self, error: Exception) -> None:
        if isinstance(error, isotp.WrongSequenceNumberError):
            self.trouble = "its frames came out of order"
        elif isinstance(error, isotp.ConsecutiveFrameTimeoutError | isotp.InvalidCanDataError):
            self.trouble = "its answer was cut off"
        elif isinstance(error, isotp.FrameTooLongError):
            self.trouble = "its answer was longer than any may be"

    @property
    def receiving(self) -> bool:
        """Whether an answer in several frames is under way."""
        return self.layer.rx_state is not isotp.TransportLayerLogic.RxState.IDLE

    def turn(self) -> bytes | None:
        """Let the stack work; a complete payload, if there is one now."""
        self.layer.process(rx_timeout=0.0)
        said = self.layer.recv() if self.layer.available() else None
        return bytes(said) if said else None


class Conversation:
    """Requests over an open adapter, one after the other; `stopped` says whether somebody wants no more."""

    def __init__(self, bus: Bus, stopped: Callable[[], bool] = lambda: False) -> None:
        self._bus, self.stopped = bus, stopped

    def ask_all(self, payload: bytes, *, extended: bool, known: Collection[Unit] = ()) -> dict[Unit, Answer]:
        """Ask every unit at once; done early where all that are known have answered."""
        return self._exchange(payload, FUNCTIONAL[extended], extended, frozenset(known), only=False)

    def ask(self, unit: Unit, payload: bytes, *, window: float = P2_SECONDS + LATENCY_SECONDS) -> Answer:
        """Ask one unit; an answer that was broken is asked for once more."""
        only = frozenset({unit})
        found = self._exchange(payload, unit.asked, unit.extended, only, only=True, window=window)
        answer = found.get(unit, SILENCE)
        if answer.trouble and not answer.trouble.startswith("it kept"):
            again = self._exchange(payload, unit.asked, unit.extended, only, only=True, window=window)
            return again.get(unit, SILENCE) if not again.get(unit, SILENCE).silent else answer
        return answer

    def _exchange(
        self,
        payload: bytes,
        identifier: int,
        extended: bool,
        expected: frozenset[Unit],
        *,
        only: bool,
        window: float = P2_SECONDS + LATENCY_SECONDS,
    ) -> dict[Unit, Answer]:
        """Send a request and listen until everybody who began to answer is done."""
        drained = time.monotonic() + QUIET_SECONDS
        while self._bus.heard(0) is not None and time.monotonic() < drained:
            pass  # what nobody asked for
        stacks: dict[Unit, _Stack] = {}
        self._bus.send(identifier, framed(payload), extended=extended)
        until = time.monotonic() + window
        while not self.stopped():
            now = time.monotonic()
            open_ones = [one for one in stacks.values() if one.answer is None and now < one.until]
            if expected and all(one in stacks and stacks[one].answer for one in expected) and not open_ones:
                break
            if now >= until and not open_ones:
                break
            heard = self._bus.heard(STEP_SECONDS if open_ones else min(until - now, STEP_SECONDS))
            unit = unit_of(heard.arbitration_id, extended=heard.is_extended_id) if heard is not None else None
            if heard is not None and unit is not None and unit.extended == extended and (not only or unit in expected):
                stack = stacks.setdefault(unit, _Stack(unit, self._let_go_on))
                frame = isotp.CanMessage(unit.answers, len(heard.data), bytes(heard.data), unit.extended)
                stack.frames.append(frame)
                if stack.trouble:
                    stack.until = time.monotonic() + QUIET_SECONDS
            for stack in stacks.values():
                self._take(stack, payload)
        return {unit: one.answer or _unanswered(one) for unit, one in stacks.items() if _said(one)}

    def _take(self, stack: _Stack, payload: bytes) -> None:
        """Let a unit's stack work on, and see how far its answer is."""
        said, now = stack.turn(), time.monotonic()
        if stack.answer is not None:
            return
        if stack.receiving:
            stack.trouble, stack.until = "", now + 2 * N_CR_MS / 1000
        elif stack.trouble and stack.until > now + QUIET_SECONDS:
            stack.until = now + QUIET_SECONDS
        if said is None:
            return
        if said[0] == NEGATIVE and said[1:2] == payload[:1] and len(said) >= 3:
            if said[2] != PENDING:
                stack.answer = Answer(refused=said[2])
            elif now < (stack.pending or now) + MOST_PENDING_SECONDS:
                stack.pending, stack.until = stack.pending or now, now + P2_PENDING_SECONDS
            else:
                stack.answer = Answer(trouble="it kept asking for more time")
        elif answers(payload, said):
            stack.answer = Answer(said)

    def _let_go_on(self, unit: Unit, frame: bytes) -> None:
        self._bus.send(unit.asked, frame, extended=unit.extended)


def answers(payload: bytes, said: bytes) -> bool:
    """Whether a payload answers a request: its service, and what of the request it repeats."""
    if said[0] != payload[0] + ANSWER:
        return False
    repeated = {0x01: 1, 0x02: 2, 0x06: 1, 0x09: 1, 0x19: 1, 0x22: 2, 0x3E: 1}.get(payload[0], 0)
    return said[1 : 1 + repeated] == payload[1 : 1 + repeated]


def _unanswered(stack: _Stack) -> Answer:
    if stack.trouble:
        return Answer(trouble=stack.trouble)
    return Answer(trouble="it asked for more time and then said nothing" if stack.pending else "its answer was cut off")


def _said(stack: _Stack) -> bool:
    """Whether a unit began to answer this request; frames of something else are nothing."""
    return stack.answer is not None or bool(stack.trouble) or stack.pending > 0 or stack.receiving
