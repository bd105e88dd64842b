"""Changes that hold for this stream alone: laid over the channel's own settings, and gone when the stream ends.

The channel's settings themselves are never touched, so that nothing has to be remembered to put them back.
"""

from __future__ import annotations

from typing import Any

from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.records import TonightRecord
from gentlegate.core.state import State

MOST = 200


def changes(state: State) -> list[TonightRecord]:
    """What holds tonight, in the order in which it was changed."""
    return sorted((record for _, record in state.tonight.items()), key=lambda record: record.number)


def laid_over(document: edit.Document, state: State) -> edit.Document:
    """The settings as they hold now. KitError where a change no longer fits."""
    for change in changes(state):
        document = one_laid_over(document, change)
    return document


def one_laid_over(document: edit.Document, change: TonightRecord) -> edit.Document:
    if change.add is not None:
        return edit.add(document, change.path, change.add)
    if change.take is not None:
        return edit.take(document, change.path, change.take)
    return edit.write(document, change.path, change.value)


def put(state: State, change: TonightRecord) -> None:
    """Let a change hold; one that sets the same place takes the earlier one's."""
    if change.add is None and change.take is None:
        for other in changes(state):
            if other.path == change.path:
                state.tonight.drop(str(other.number))
    if len(state.tonight) >= MOST:
        raise ActError(f"there are {MOST} changes for tonight already; make some of them last", "path")
    state.tonight.put(str(change.number), change)


def drop_overtaken(state: State, path: str) -> None:
    """A lasting change of a place takes what held there for tonight."""
    for other in changes(state):
        if other.path == path or other.path.startswith(path + ".") or path.startswith(other.path + "."):
            state.tonight.drop(str(other.number))


def next_number(state: State) -> int:
    return max((change.number for change in changes(state)), default=0) + 1


def value_of(change: TonightRecord) -> Any:
    """What the change says, for people."""
    return change.value if change.add is None and change.take is None else change.add or change.take
