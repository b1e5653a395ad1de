"""Drawings from numbers, as SVG text: pages and report use the same ones; colours come from the style sheet."""
