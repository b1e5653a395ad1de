"""The demo: made-up vehicles of the Orrin Isles, built through the same entries as everything else."""

from hakutsu.demo.building import add_demo

__all__ = ["add_demo"]
