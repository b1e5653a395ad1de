"""Pages as they were sent, kept by all that they show: one that shows the same again is not made again."""

from __future__ import annotations

import re
from collections import OrderedDict
from collections.abc import Callable, Hashable
from contextlib import AsyncExitStack
from dataclasses import dataclass, field
from uuid import UUID

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from hakutsu.web.turns import Turns

MOST_BYTES = 24_000_000
OF_AN_INSPECTION = re.compile(r"/inspections/([0-9a-f-]{36})/(?!pictures/[^/]+/|entries$|(?:film|engine|scan)/link)")
HTML = (b"text/html", b"application/json")


@dataclass(slots=True)
class _Sent:
    start: Message
    body: bytearray = field(default_factory=bytearray)


class PagesKept:
    """Answers a page from what was sent before where nothing it shows has changed.

    Parameters
    ----------
    state : of an inspection and a path: all that a page of it may show, equal where it is the same; none where that
        cannot be told
    """

    def __init__(
        self, app: ASGIApp, state: Callable[[UUID, str], Hashable | None], turns: Turns, most: int = MOST_BYTES
    ) -> None:
        self.app = app
        self._state = state
        self._most = most
        self._kept: OrderedDict[Hashable, _Sent] = OrderedDict()
        self._of: dict[Hashable, Hashable] = {}  # the newest key of every address
        self._bytes = 0
        self._turns = turns

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request."""
        if scope["type"] == "http":
            self._turns.asked()
        key, address = self._key(scope)
        kept = self._kept.get(key) if key is not None else None
        if kept is not None:
            self._kept.move_to_end(key)
            await send(dict(kept.start) | {"headers": list(kept.start["headers"])})
            await send({"type": "http.response.body", "body": bytes(kept.body)})
        elif key is None:
            await self.app(scope, receive, send)
        else:
            await self._made(key, address, scope, receive, send)

    def _key(self, scope: Scope) -> tuple[Hashable | None, Hashable]:
        """What a page is kept under, and its address; nothing of what is no page of an inspection."""
        if scope["type"] != "http" or scope["method"] != "GET":
            return None, None
        found = OF_AN_INSPECTION.match(scope["path"])
        if found is None:
            return None, None
        said = dict(scope["headers"])
        address = (
            scope["path"],
            scope["query_string"],
            b"gzip" in said.get(b"accept-encoding", b""),
            said.get(b"accept"),
        )
        try:
            state = self._state(UUID(found[1]), scope["path"][found.end() :])
        except ValueError:
            return None, None
        return (None, None) if state is None else ((address, state), address)

    async def _made(self, key: Hashable, address: Hashable, scope: Scope, receive: Receive, send: Send) -> None:
        """Have a page made when its turn comes; it is over when the answer begins, however slowly that is taken."""
        made: _Sent | None = None
        over = AsyncExitStack()
        await over.enter_async_context(self._turns.taken())

        async def copied(message: Message) -> None:
            nonlocal made
            if message["type"] == "http.response.start":
                await over.aclose()
                kind = dict(message["headers"]).get(b"content-type", b"")
                if message["status"] == 200 and kind.startswith(HTML):
                    made = _Sent(dict(message) | {"headers": list(message["headers"])})
            elif made is not None and message["type"] == "http.response.body":
                made.body += message.get("body", b"")
                if not message.get("more_body", False):
                    self._keep(key, address, made)
            await send(message)

        async with over:
            await self.app(scope, receive, copied)

    def _keep(self, key: Hashable, address: Hashable, made: _Sent) -> None:
        """Keep what was sent, in the place of an older one at the same address."""
        for old in (self._of.get(address), key):
            gone = self._kept.pop(old, None) if old is not None else None
            self._bytes -= len(gone.body) if gone else 0
        self._kept[key] = made
        self._of[address] = key
        self._bytes += len(made.body)
        while self._bytes > self._most and len(self._kept) > 1:
            oldest, gone = self._kept.popitem(last=False)
            self._bytes -= len(gone.body)
            if isinstance(oldest, tuple):
                self._of.pop(oldest[0], None)
