"""Memory of a real server while it is sent the largest bodies it refuses, and the largest it takes: its peak [MB].

Run: .venv/bin/python -W ignore -m bench.memory
"""

from __future__ import annotations

import hashlib
import http.client
import io
import tempfile
import zipfile
from collections.abc import Iterator
from pathlib import Path
from uuid import uuid4

from tests.browser.driving import RunningServer
from tests.builders import logbook_in, opened

MB = 1024 * 1024
ROW = b"roof,118,um,ok,steel,factory\n"
HEADER = b"panel,reading,unit,status,substrate,finish\n"
JSON = {"Content-Type": "application/json", "Accept": "application/json"}


def pieces(whole: bytes, times: int = 1) -> Iterator[bytes]:
    """A body in pieces, so that its length is not told."""
    for _ in range(times):
        for start in range(0, len(whole), 65536):
            yield whole[start : start + 65536]


def peak(number: int) -> float:
    """The most memory a process held since it was last asked [MB]."""
    status = Path(f"/proc/{number}/status").read_text()
    Path(f"/proc/{number}/clear_refs").write_text("5")
    return int(next(line for line in status.splitlines() if line.startswith("VmHWM")).split()[1]) / 1024


def send(server: RunningServer, method: str, path: str, body: Iterator[bytes] | bytes, headers: dict[str, str]) -> str:
    """One request; its status, or that the server hung up on what was too much."""
    connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=120)
    try:
        connection.request(method, path, body, headers, encode_chunked=not isinstance(body, bytes))
        return str(connection.getresponse().status)
    except (ConnectionError, BrokenPipeError):
        return "hung up"
    finally:
        connection.close()


def form(content: bytes) -> tuple[bytes, dict[str, str]]:
    """A form with a file in it."""
    head = b'--x\r\nContent-Disposition: form-data; name="file"; filename="a.csv"\r\nContent-Type: text/csv\r\n\r\n'
    return head + content + b"\r\n--x--\r\n", {"Content-Type": "multipart/form-data; boundary=x"}


def bundle(lines: bytes) -> bytes:
    """An exported inspection of such lines."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("logbook.jsonl", lines)
    return out.getvalue()


def main() -> None:
    """Send, and look at the peak."""
    with tempfile.TemporaryDirectory() as directory:
        inspection = opened(logbook_in(directory))
        here = f"/inspections/{inspection}"
        rows = HEADER + ROW * (5 * MB // len(ROW) - 2)
        survey, kind = form(rows)
        preview = f"{here}/film/import/{hashlib.sha256(rows).hexdigest()}"
        tried = (
            ("entries of 20 MB in pieces", "POST", f"{here}/entries", pieces(b"{}," * 21845, 320), JSON),
            ("2 MB of empty entries", "POST", f"{here}/entries", b'{"entries": [' + b"{}," * 690_000 + b"{}]}", JSON),
            ("2 MB of brackets", "POST", f"{here}/entries", b'{"entries": [' + b"[]," * 690_000 + b"[]]}", JSON),
            ("a survey of 5 MB, too many rows", "POST", f"{here}/film/import", survey, kind),
            ("its preview", "GET", preview, b"", {}),
            ("a form of 20 MB in pieces", "POST", f"{here}/film/import", pieces(form(ROW * 700_000)[0]), kind),
            (
                "a picture of 210 MB in pieces",
                "PUT",
                f"{here}/pictures/{uuid4()}?name=a.mp4",
                pieces(bytes(MB), 210),
                {},
            ),
            (
                "a picture of 199 MB that is none",
                "PUT",
                f"{here}/pictures/{uuid4()}?name=a.jpg",
                pieces(bytes(MB), 199),
                {},
            ),
            ("a logbook of 50,000 bad lines", "PUT", "/logbook/import", bundle(b"{}\n" * 50_000), {}),
            ("a bomb of 500 MB", "PUT", "/logbook/import", bundle(b" " * 500 * MB), {}),
        )
        with RunningServer(data=Path(directory)) as server:
            send(server, "GET", f"{here}/film", b"", {})
            print(f"after a page: {peak(server.process.number):.0f} MB")
            for name, method, path, body, headers in tried:
                status = send(server, method, path, body, headers)
                print(f"{name}: {status}, peak {peak(server.process.number):.0f} MB", flush=True)


if __name__ == "__main__":
    main()
