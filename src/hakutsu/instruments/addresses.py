"""Where a link may lead: ports of this machine, adapters of this machine, loopback, and hosts the account names."""

from __future__ import annotations

import ipaddress
import re
import stat
from collections.abc import Collection
from pathlib import Path

SOCKET, SOCKETCAN = "socket://", "socketcan:"
_SOCKET = re.compile(r"socket://(?:\[([0-9A-Fa-f:]{2,39})\]|([A-Za-z0-9.-]{1,253})):(\d{1,5})")
_PORT = re.compile(r"/dev/[A-Za-z0-9._/-]{1,100}|COM\d{1,3}")
_INTERFACE = re.compile(r"socketcan:[a-z0-9._-]{1,15}")


class NotAllowed(ValueError):
    """An address that no link may lead to; the message says what may stand there."""


def checked_address(address: str, hosts: Collection[str] = (), *, can: bool = False) -> str:
    """The address of a link, if it may lead there.

    Parameters
    ----------
    address : the name of a serial port of this machine, or `socket://HOST:PORT`; nothing else, and no options
    hosts : names of hosts beside this machine that the account's settings allow
    can : whether `socketcan:NAME` of this machine may stand there too

    Raises
    ------
    NotAllowed
        If it is anything else.
    """
    address = address.strip()
    if can and _INTERFACE.fullmatch(address):
        return address
    if _PORT.fullmatch(address):
        return _port(address)
    found = _SOCKET.fullmatch(address)
    if found is None:
        also = ", socketcan:can0" if can else ""
        raise NotAllowed(f"write a port of this machine such as /dev/ttyUSB0{also}, or socket://127.0.0.1:7000")
    host, port = found[1] or found[2], int(found[3])
    if not 1 <= port <= 65535:
        raise NotAllowed(f"{port} is no port; ports go from 1 to 65535")
    if not (_loopback(host) or host.lower() in {one.lower() for one in hosts}):
        raise NotAllowed(f"{host} is another machine: name it in the settings of the account first")
    return address


def _port(address: str) -> str:
    if ".." in address:
        raise NotAllowed("a port of this machine is written without ..")
    path = Path(address)
    if path.exists() and not stat.S_ISCHR(path.stat().st_mode):
        raise NotAllowed(f"{address} is no serial port")
    return address


def _loopback(host: str) -> bool:
    if host.lower() == "localhost":
        return True
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False
