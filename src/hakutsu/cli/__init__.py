"""The command line: a mirror of what the server does. Importing this room registers every command."""

from hakutsu.cli import film, inspection, life, logbook, serving, stand_ins
from hakutsu.cli.common import app

__all__ = ["app", "film", "inspection", "life", "logbook", "main", "serving", "stand_ins"]


def main() -> None:
    """Entry point of the command `hakutsu`."""
    app()
