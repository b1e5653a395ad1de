"""The scan link by hand: decode payloads, read a vehicle."""

from __future__ import annotations

import json
import logging
import sys
from typing import Annotated

import typer

from hakutsu.cli.common import fail, scans

JsonOption = Annotated[bool, typer.Option("--json", help="As JSON, which is the only form there is.")]


@scans.command("decode")
def decode_payloads(as_json: JsonOption = False) -> None:
    """Decode complete payloads from standard input, a line of hexadecimal digits each."""
    from hakutsu.core.scan.codec.decode import decode_text

    lines = sys.stdin.buffer.read().decode("utf-8", "replace").splitlines()
    rows = [decode_text(line).row for line in lines if line.strip()]
    print(json.dumps(rows, ensure_ascii=False))


@scans.command("read")
def read_vehicle(
    url: Annotated[str, typer.Argument(help="socketcan:NAME, a port, or socket://127.0.0.1:PORT of an adapter.")],
    wide: Annotated[bool, typer.Option("--wide", help="Ask every identifier of 29 bits too.")] = False,
    as_json: JsonOption = False,
) -> None:
    """Read what the control units of a vehicle have to say. It only reads; nobody scans while driving."""
    from hakutsu.exchange.scan_json import scan_json
    from hakutsu.instruments.diagnostic.bus import NoLink
    from hakutsu.instruments.diagnostic.vehicle_reader import VehicleReader

    logging.getLogger("can").setLevel(logging.CRITICAL)
    try:
        read = VehicleReader(url, wide=wide).read()
    except NoLink as error:
        fail(f"{error}")
    print(json.dumps(scan_json(read), ensure_ascii=False))
