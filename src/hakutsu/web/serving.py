"""Start the server on a loopback address: one server per data directory, one port, clear errors."""

from __future__ import annotations

import gc
import socket
import sys
from pathlib import Path

import uvicorn

from hakutsu.demo import add_demo
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.logbook.importing import clear_half_imports
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.logbook.trouble import told
from hakutsu.web.app import create_app


class AddressTaken(RuntimeError):
    """The port cannot be listened on."""


def _listen(host: str, port: int) -> socket.socket:
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listening.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)  # what is accepted takes it over
    try:
        listening.bind((host, port))
        listening.listen(128)
    except OSError as error:
        listening.close()
        raise AddressTaken(
            f"port {port} on {host} cannot be used ({error.strerror}); choose another with --port"
        ) from error
    return listening


def _prepare(logbook: Logbook, directory: DataDirectory, with_demo: bool) -> None:
    """Clear what a crash left half done, and add the demo's inspections if they are wanted."""
    if logbook.read_only:
        return
    clear_half_imports(logbook)
    if with_demo:
        files = PictureFiles(directory.path / "pictures")
        add_demo(logbook, files)
        files.close()


def _tuned() -> None:
    """What is loaded stays, and reckonings at hand are many small objects: looked through for garbage seldom.

    Threads take turns often, so that an entry is acknowledged while a page is made.
    """
    sys.setswitchinterval(0.001)
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 10, 10)


def serve_on(data: Path, host: str, port: int, *, with_demo: bool) -> None:
    """Serve until stopped.

    Raises
    ------
    DataTrouble
        If another server works on the directory, or it cannot be used.
    AddressTaken
        If the port is taken or not allowed.
    """
    directory = DataDirectory(data)
    directory.hold()
    try:
        with _listen(host, port) as listening:
            logbook = Logbook(directory.engine())
            with told(directory.database):
                _prepare(logbook, directory, with_demo)
            address = f"http://{host}:{listening.getsockname()[1]}/"
            kept = "read-only, nothing new is stored" if logbook.read_only else "stop with Ctrl+C"
            print(f"Hakutsu is at {address}  (data in {directory.path}; {kept})", flush=True)
            config = uvicorn.Config(
                create_app(logbook, directory.path), log_level="warning", access_log=False, timeout_graceful_shutdown=2
            )
            _tuned()
            uvicorn.Server(config).run(sockets=[listening])
    finally:
        directory.release()
