"""What stands before every page: who may send, how much, and the security headers on whatever is answered."""

from __future__ import annotations

from urllib.parse import urlsplit

from fastapi.responses import JSONResponse, Response
from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from hakutsu.logbook.pictures import MOST_CLIP

MOST_BYTES = 2 * 1024 * 1024  # entries and forms
MOST_FORM = 8 * 1024 * 1024  # forms with a file
MOST_BUNDLE = 4 * 1024 * 1024 * 1024
READING = ("GET", "HEAD", "OPTIONS")
BUNDLES = "/logbook/import"
CONTENT_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; media-src 'self'; font-src 'self'; "
    "connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": CONTENT_POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def protect(headers: MutableHeaders, path: str) -> None:
    """Put the security headers on an answer; what is private is kept by no cache."""
    for name, value in HEADERS.items():
        headers.setdefault(name, value)
    headers.setdefault("Cache-Control", "no-cache" if path.startswith("/static/") else "no-store")


class Guard:
    """Refuses what another site sends and what is too large, however it is sent."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def protected(message: Message) -> None:
            if message["type"] == "http.response.start":
                protect(MutableHeaders(scope=message), scope["path"])
            await send(message)

        headers = Headers(scope=scope)
        most = _most(scope["method"], scope["path"], headers)
        refused = _refused(scope["method"], headers, most)
        if refused is not None:
            await refused(scope, receive, protected)
            return
        await self.app(scope, _counted(receive, most), protected)


def _most(method: str, path: str, headers: Headers) -> int:
    if method == "PUT":
        return MOST_BUNDLE if path == BUNDLES else MOST_CLIP
    return MOST_FORM if headers.get("content-type", "").startswith("multipart/form-data") else MOST_BYTES


def _refused(method: str, headers: Headers, most: int) -> Response | None:
    if method not in READING and _foreign(headers):
        return JSONResponse({"message": "sent from another site"}, 403)
    length = headers.get("content-length", "0")
    if not (length.isascii() and length.isdigit()):
        return JSONResponse({"message": "the length of what was sent is no number"}, 400)
    if len(length) > 18 or int(length) > most:
        return JSONResponse({"message": _too_large(most)}, 413)
    return None


def _foreign(headers: Headers) -> bool:
    """Whether another site sent it, by what the browser says of it."""
    if headers.get("sec-fetch-site", "none") not in ("same-origin", "none"):
        return True
    origin = headers.get("origin")
    if origin is None:
        return False
    try:
        return urlsplit(origin).netloc != headers.get("host")
    except ValueError:
        return True


def _too_large(most: int) -> str:
    return f"larger than {most // 1024 // 1024:,} MB"


def _counted(receive: Receive, most: int) -> Receive:
    """The body as it comes, ended when more comes than is taken: a length need not be told beforehand."""
    taken = 0

    async def counted() -> Message:
        nonlocal taken
        message = await receive()
        taken += len(message.get("body", b""))
        if taken > most:
            raise HTTPException(413, _too_large(most))
        return message

    return counted
