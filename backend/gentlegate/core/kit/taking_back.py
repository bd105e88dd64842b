"""Taking single changes of the settings back: whether one still holds, and the change that undoes it.

Laws: a change that holds can be taken back; then the settings are as before it; and taking that back again gives the
change.
"""

from __future__ import annotations

from typing import Any

from gentlegate.core.kit import edit


def holds(document: edit.Opened, path: str, before: Any, after: Any) -> bool:
    """Whether what a change left at its place is still there."""
    return before != after and bool(document.read(edit.where_it_stands(path, after)) == after)


def way_back(path: str, before: Any, after: Any) -> edit.Change:
    """The change that takes a change back; it is found under the name that the change left it."""
    return edit.where_it_stands(path, after), before
