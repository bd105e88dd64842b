"""Word data that ships with the gate, read once when first asked for."""

from __future__ import annotations

from functools import cache
from importlib.resources import files


@cache
def words(name: str) -> frozenset[str]:
    """The words of `data/NAME.txt`; lines that begin with # are remarks."""
    text = (files("gentlegate.core.text") / "data" / f"{name}.txt").read_text(encoding="utf-8")
    return frozenset(w for line in text.splitlines() if not line.startswith("#") for w in line.split())


@cache
def lines(name: str) -> tuple[str, ...]:
    """The lines of `data/NAME.txt`, in order, without remarks and empty ones."""
    text = (files("gentlegate.core.text") / "data" / f"{name}.txt").read_text(encoding="utf-8")
    return tuple(line.strip() for line in text.splitlines() if line.strip() and not line.startswith("#"))
