"""What is computed is kept by what it rests on: a part whose states have not changed is not computed again.

Reading a state, or a glance at one, is noted while something is being computed. Of the next dossier of the same
inspection, a value is taken over where everything it read is the same.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from contextlib import AbstractContextManager, contextmanager
from threading import RLock, local
from typing import TYPE_CHECKING, Any, Generic, NamedTuple, Protocol, TypeVar, overload

if TYPE_CHECKING:
    from collections.abc import Iterator

# What can be read: a state by its class, a glance by its name, or a value of somebody's, by both their names.
Leaf = type[Any] | str | tuple[str, str]
T = TypeVar("T")


class _Reading(local):
    """What the value being computed in this thread has read so far; nothing where none is."""

    leaves: dict[Leaf, Any] | None = None


_reading = _Reading()


def note(leaf: Leaf, stamp: Any) -> None:
    """Note that a leaf was read as it stands."""
    if _reading.leaves is not None:
        _reading.leaves[leaf] = stamp


@contextmanager
def unnoted() -> Iterator[None]:
    """Read without noting it."""
    before, _reading.leaves = _reading.leaves, None
    try:
        yield
    finally:
        _reading.leaves = before


class _Kept(NamedTuple):
    value: Any
    rests_on: dict[Leaf, Any]


class Memo:
    """Values of one dossier by their keys, and those of the dossier before that may still hold.

    Parameters
    ----------
    stamp : how a leaf stands now; equal where it has not changed
    before : the memo of the dossier before, if there is one
    """

    def __init__(self, stamp: Callable[[Leaf], Any], before: Memo | None = None) -> None:
        self._stamp = stamp
        self._values: dict[Hashable, _Kept] = {}
        # One computation at a time of one inspection, whichever of its dossiers it belongs to.
        self.lock: AbstractContextManager[bool] = before.lock if before else RLock()
        with self.lock:
            self._before: dict[Hashable, _Kept] = {**before._before, **before._values} if before else {}

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        """The value of a key: as it was computed, here or before where it still holds, or computed now."""
        found = self._values.get(key)
        if found is None:
            with self.lock:
                found = self._values.get(key) or self._taken_over(key) or self._computed(compute)
                self._values[key] = found
        if _reading.leaves is not None:
            _reading.leaves.update(found.rests_on)
        value: T = found.value
        return value

    def _taken_over(self, key: Hashable) -> _Kept | None:
        old = self._before.pop(key, None)
        if old is None:
            return None
        with unnoted():
            same = all(self._stamp(leaf) == stamp for leaf, stamp in old.rests_on.items())
        return old if same else None

    def _computed(self, compute: Callable[[], Any]) -> _Kept:
        before, mine = _reading.leaves, dict[Leaf, Any]()
        _reading.leaves = mine
        try:
            return _Kept(compute(), mine)
        finally:
            _reading.leaves = before
            if before is not None:
                before.update(mine)


class glance(Generic[T]):
    """A property of a dossier that is small and cheap: what reads it rests on its value, not on the state behind it."""

    def __init__(self, function: Callable[[Any], T]) -> None:
        self._function = function
        self.__doc__ = function.__doc__

    def __set_name__(self, owner: type[Any], name: str) -> None:
        self._name = name

    @overload
    def __get__(self, one: None, owner: type[Any]) -> glance[T]: ...
    @overload
    def __get__(self, one: object, owner: type[Any]) -> T: ...

    def __get__(self, one: object | None, owner: type[Any]) -> glance[T] | T:
        if one is None:
            return self
        with unnoted():
            value = self._function(one)
        note(self._name, value)
        return value


class Remembering(Protocol):
    """Has a memo for what it computes."""

    @property
    def memo(self) -> Memo: ...

    @property
    def key(self) -> str:
        """The name it is known by."""


class kept(Generic[T]):
    """A property whose value is kept by what it rests on."""

    def __init__(self, function: Callable[[Any], T]) -> None:
        self._function = function
        self.__doc__ = function.__doc__

    def __set_name__(self, owner: type[Any], name: str) -> None:
        self._key = (owner.__module__, owner.__qualname__, name)

    @overload
    def __get__(self, one: None, owner: type[Any]) -> kept[T]: ...
    @overload
    def __get__(self, one: Remembering, owner: type[Any]) -> T: ...

    def __get__(self, one: Remembering | None, owner: type[Any]) -> kept[T] | T:
        if one is None:
            return self
        return one.memo.get(self._key, lambda: self._function(one))


class kept_as_value(kept[T]):
    """A property that is kept; what reads it rests on its value, and holds as long as that comes out the same."""

    def __set_name__(self, owner: type[Any], name: str) -> None:
        super().__set_name__(owner, name)
        self._name = name

    @overload
    def __get__(self, one: None, owner: type[Any]) -> kept_as_value[T]: ...
    @overload
    def __get__(self, one: Remembering, owner: type[Any]) -> T: ...

    def __get__(self, one: Remembering | None, owner: type[Any]) -> kept_as_value[T] | T:
        if one is None:
            return self
        with unnoted():
            value = one.memo.get(self._key, lambda: self._function(one))
        note((one.key, self._name), value)
        return value
