"""Changes of the channel's settings: for good or for tonight, one place or many at once, and their way back.

`document` are the channel's own settings; `effective` is what holds with tonight's changes laid over them.
"""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Mapping, Sequence
from typing import Any

from gentlegate.core import tonight
from gentlegate.core.effects import Cause, SettingChanged
from gentlegate.core.errors import ActError, GateError
from gentlegate.core.events import DeskAct
from gentlegate.core.filters import build_filters
from gentlegate.core.kit import edit
from gentlegate.core.kit.filters import with_mood
from gentlegate.core.kit.load import load_kit
from gentlegate.core.kit.model import Kit
from gentlegate.core.records import BatchRecord, FeedRecord, TonightRecord
from gentlegate.core.state import State
from gentlegate.core.text.folding import fold_name

MOST_AT_ONCE = 50_000
KEPT_BATCHES = 20
FEEDS = "filters.links.feeds"
Act = Callable[[DeskAct, int], Sequence[SettingChanged]]


class Changes:
    """`use` is given each new kit once it holds."""

    def __init__(self, state: State, use: Callable[[Kit], None]) -> None:
        self._state = state
        self._use = use
        self._loaded: list[tuple[edit.Document, Kit]] = []
        self._ready: tuple[edit.Document, Mapping[str, Any], edit.Document] | None = None
        self.document: edit.Document = {}
        self.effective: edit.Document = {}
        self.acts: dict[str, Act] = {
            "setting": self._setting,
            "settings": self._settings,
            "settings_back": self._settings_back,
            "put_back": self._put_back,
            "feed": self._feed,
        }

    def apply(self, document: edit.Document) -> None:
        """Take other settings into use. KitError if they cannot be; then the old ones stay."""
        effective = tonight.laid_over(document, self._state)
        kit = self._load(effective)
        self.document, self.effective = document, effective
        self._use(kit)

    def _load(self, document: edit.Document) -> Kit:
        """The checked kit of a document; the last ones are kept, as a change is checked before it is applied."""
        for known, kit in self._loaded:
            if known is document:
                return kit
        kit = load_kit(document)
        self._loaded = [*self._loaded[-1:], (document, kit)]
        return kit

    def prepare(self, act: DeskAct) -> None:
        """Build what a change will need, in another thread, so that the change itself is quick.

        Nothing is changed; a change that cannot be is left for its act to refuse.
        """
        with contextlib.suppress(GateError, RuntimeError):
            base = self.effective if act.values.get("tonight") else self.document
            document = _laid_on(base, act, 0)
            kit = self._load(document)
            build_filters(with_mood(kit.filters, kit.channel.mood), dict(self._state.feeds.items()))
            self._ready = (base, act.values, document)

    def _with(self, base: edit.Document, act: DeskAct) -> edit.Document:
        """The document with an act's changes: the one that was prepared, where nothing came between."""
        ready, self._ready = self._ready, None
        if ready and ready[0] is base and ready[1] is act.values:
            return ready[2]
        return _laid_on(base, act, 0)

    def written(self, path: str) -> Any:
        """What stands at a place as it was written, tonight's changes aside where it can."""
        return edit.read(self.document, path) or edit.read(self.effective, path)

    def make(
        self, path: str, value: Any, by: str, now: int, cause: Cause, for_tonight: bool = False
    ) -> SettingChanged:
        """A change that a command asks for. KitError where it cannot be; then nothing was changed."""
        act = DeskAct(now, by, "setting", {"path": path, "value": value, "tonight": for_tonight})
        return self._make(act, cause, now)

    def _setting(self, act: DeskAct, now: int) -> list[SettingChanged]:
        """Change a place: `value` sets it, `add` and `take` change a list; `tonight` lets it hold for this stream."""
        lists = {key: act.values[key] for key in ("add", "take") if act.values.get(key) is not None}
        if len(lists) > 1 or any(not isinstance(entries, list) for entries in lists.values()):
            raise ActError("give either value, or a list to add, or a list to take", "value")
        return [self._make(act, Cause("desk", "setting"), now)]

    def _make(self, act: DeskAct, cause: Cause, now: int) -> SettingChanged:
        for_tonight = bool(act.values.get("tonight"))
        change = _wanted(act, tonight.next_number(self._state))
        path, before = change.path, edit.read(self.effective, change.path)
        if for_tonight:
            self._load(self._with(self.effective, act))
            tonight.put(self._state, change)
            self.apply(self.document)
        else:
            document = self._with(self.document, act)
            self._load(document)
            if change.add is None and change.take is None:
                tonight.drop_overtaken(self._state, path)
            self.apply(document)
            if path.startswith(FEEDS):
                self._forget_feeds()
        after = edit.read(self.effective, edit.where_it_stands(path, act.values.get("value")))
        held = True if for_tonight else None
        return SettingChanged(at=now, path=path, before=before, after=after, by=act.by, tonight=held, cause=cause)

    def _settings(self, act: DeskAct, now: int) -> list[SettingChanged]:
        """Change many places at once, all or none. With `about`, they can be taken back together."""
        changed = self._make_all(act, now)
        about = act.values.get("about")
        if about and changed:
            number = self.last_batch + 1
            changes = [[one.path, one.before, one.after] for one in changed]
            self._state.batches.put(str(number), BatchRecord(number, str(about), act.by, now, changes))
            self._state.batches.drop(str(number - KEPT_BATCHES))
        return changed

    @property
    def last_batch(self) -> int:
        """The number of the newest changes that can be taken back together; 0 where there are none."""
        return max((record.number for _, record in self._state.batches.items()), default=0)

    def _make_all(self, act: DeskAct, now: int) -> list[SettingChanged]:
        values = dict(_listed(act))
        before = edit.Opened(self.document)
        document = self._with(self.document, act)
        self._load(document)
        for path in values if len(self._state.tonight) else ():
            tonight.drop_overtaken(self._state, path)
        after = edit.Opened(document)
        self.apply(document)
        self._forget_feeds()
        found = []
        for path, value in values.items():
            was, now_is = before.read(path), after.read(edit.where_it_stands(path, value))
            if was != now_is:
                cause = Cause("desk", act.do)
                found.append(SettingChanged(at=now, path=path, before=was, after=now_is, by=act.by, cause=cause))
        return found

    def _settings_back(self, act: DeskAct, now: int) -> list[SettingChanged]:
        """Take many changes back at once; a place that was changed since stays as it is."""
        record = self._state.batches.get(str(act.values.get("number")))
        if record is None or record.back_by is not None:
            raise ActError("these changes were taken back already", "number")
        current = edit.Opened(self.document)
        stood = [(edit.where_it_stands(path, after), before, after) for path, before, after in record.changes]
        back = [
            {"path": path, "value": before}
            for path, before, after in reversed(stood)
            if current.read(path) == after
        ]
        if not back:
            raise ActError("each of these places was changed again since; nothing is left to take back", "number")
        changed = self._make_all(DeskAct(act.at, act.by, act.do, {"changes": back}), now)
        self._state.batches.edit(str(record.number)).back_by = act.by
        return changed

    def _put_back(self, act: DeskAct, now: int) -> list[SettingChanged]:
        number = act.values.get("number")
        changes = [change for change in tonight.changes(self._state) if change.number == number]
        if not changes:
            raise ActError("this change for tonight was put back already", "number")
        return self.put_back(changes, act.by, now)

    def put_back(self, changes: list[TonightRecord], by: str, now: int) -> list[SettingChanged]:
        """End changes that hold for tonight."""
        if not changes:
            return []
        before = self.effective
        for change in changes:
            self._state.tonight.drop(str(change.number))
        self.apply(self.document)
        return [
            SettingChanged(
                at=now,
                path=path,
                before=edit.read(before, path),
                after=edit.read(self.effective, path),
                by=by,
                tonight=False,
                cause=Cause("desk", "setting"),
            )
            for path in dict.fromkeys(change.path for change in changes)
        ]

    def _feed(self, act: DeskAct, now: int) -> list[SettingChanged]:
        """Put the hosts of an imported list in the place of those that it had."""
        name, hosts = str(act.values.get("name", "")), act.values.get("hosts")
        if fold_name(name) not in self._feed_names():
            raise ActError(f'no imported list is named "{name}"', "name")
        if not isinstance(hosts, list) or not all(isinstance(host, str) for host in hosts):
            raise ActError("hosts is a list of hosts", "hosts")
        feeds = self._state.feeds
        before = feeds.get(fold_name(name))
        feeds.put(fold_name(name), FeedRecord(hosts, now))
        self.apply(self.document)
        count = len(before.hosts) if before else None
        path, cause = f"{FEEDS}.{name}", Cause("desk", "feed")
        return [SettingChanged(at=now, path=path, before=count, after=len(hosts), by=act.by, cause=cause)]

    def _feed_names(self) -> set[str]:
        return {fold_name(feed.name) for feed in self._load(self.effective).filters.links.feeds}

    def _forget_feeds(self) -> None:
        """The hosts of imported lists that are gone from the settings go as well."""
        named = self._feed_names()
        for key, _ in list(self._state.feeds.items()):
            if key not in named:
                self._state.feeds.drop(key)


def _listed(act: DeskAct) -> list[edit.Change]:
    """The changes of an act that makes many."""
    changes = act.values.get("changes")
    if not isinstance(changes, list) or not all(
        isinstance(one, dict) and isinstance(one.get("path"), str) for one in changes
    ):
        raise ActError('changes is a list of {"path": …, "value": …}', "changes")
    if len(changes) > MOST_AT_ONCE:
        raise ActError(f"these are {len(changes)} changes; at most {MOST_AT_ONCE} go at once", "changes")
    return [(one["path"], one.get("value")) for one in changes]


def _wanted(act: DeskAct, number: int) -> TonightRecord:
    """The change of one place that an act asks for."""
    values = act.values
    path = str(values.get("path", ""))
    return TonightRecord(number, path, act.by, act.at, values.get("value"), values.get("add"), values.get("take"))


def _laid_on(document: edit.Document, act: DeskAct, number: int) -> edit.Document:
    if "changes" in act.values:
        return edit.write_all(document, _listed(act))
    return tonight.one_laid_over(document, _wanted(act, number))
