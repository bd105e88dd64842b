"""Word data that ships with the gate, read once when first asked for."""

from __future__ import annotations

from functools import cache
from importlib.resources import files


@cache
def words(name: str) -> frozenset[str]:
    """The words of `data/NAME.txt`; lines that begin with # are remarks."""
    text = (files("gentlegate.core.text") / "data" / f"{name}.txt").read_text(encoding="utf-8")
    return frozenset(w for line in text.splitlines() if not line.startswith("#") for w in line.split())
