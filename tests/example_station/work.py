"""The work of an inspector at the example station; runs in a product that has it. Prints what was reached."""

import json
import tempfile
from datetime import UTC, datetime
from pathlib import Path

from fastapi.testclient import TestClient
from typer.testing import CliRunner

from hakutsu.cli import app
from hakutsu.entries import Draft, parse_body
from hakutsu.web.app import create_app
from tests.builders import logbook_in, opened

NOON = datetime(2026, 8, 1, 12, tzinfo=UTC)
WORDS = "tow bar socket dead"


def reached(directory: str) -> dict[str, bool]:
    """Where the finding arrived after one entry through the server."""
    logbook = logbook_in(directory)
    inspection = opened(logbook)
    client = TestClient(create_app(logbook, Path(directory)), base_url="http://127.0.0.1")
    here = f"/inspections/{inspection}"
    body = parse_body("towing.socket", 1, {"result": "dead", "note": "corroded"})
    draft = Draft.write("towing.socket", body, NOON)
    answer = client.post(
        f"{here}/entries",
        json={"entries": [draft.model_dump(mode="json")]},
        headers={"accept": "application/json"},
    ).json()
    fragments = client.get(f"{here}/fragments?view=towing").json()
    shown = {name: client.get(f"{here}/{name}").text for name in ("towing", "life/sheet", "report", "round", "logbook")}
    searched = client.get("/search?q=corroded").text
    told = CliRunner().invoke(app, ["findings", str(inspection), "--json", "--data", directory]).stdout
    return {
        "stored": answer["acknowledged"] == [str(draft.id)],
        "fragment": "Dead; corroded" in fragments["socket"],
        "navigation": f'href="{here}/towing"' in shown["round"] and "1/1" in shown["towing"],
        "sheet": WORDS in shown["life/sheet"].lower(),
        "report, findings": WORDS in shown["report"].lower(),
        "report, section": "Tow bar socket: dead; corroded." in shown["report"],
        "logbook": "Tow bar socket" in shown["logbook"],
        "search": f"{here}/towing" in searched,
        "command line": "towing.socket_dead" in told,
    }


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as made:
        print(json.dumps(reached(made)))
