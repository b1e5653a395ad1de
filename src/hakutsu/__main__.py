"""`python -m hakutsu`: the command `hakutsu`."""

from hakutsu.cli import main

main()
