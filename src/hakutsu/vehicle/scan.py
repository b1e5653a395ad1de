"""Looks of the scan, by name."""

from __future__ import annotations

MEMORY = "scan_all_memory"
SCAN_LOOKS = {MEMORY: "fault codes of the control units"}
