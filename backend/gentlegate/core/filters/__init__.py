"""The filters, in the order of the judge's table: equal steps are decided by the earlier one."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from gentlegate.core.filters.base import Filter, Finding
from gentlegate.core.filters.capitals import CapitalsFilter
from gentlegate.core.filters.company import CopycatsFilter, PaceFilter, ResendsFilter
from gentlegate.core.filters.counts import EmotesFilter, LengthFilter, MentionsFilter
from gentlegate.core.filters.links import LinksFilter
from gentlegate.core.filters.listed import NamesFilter, PhrasesFilter
from gentlegate.core.filters.manners import ActionsFilter, FalseNoticeFilter
from gentlegate.core.filters.newcomers import NewcomersFilter
from gentlegate.core.filters.repeats import RepeatsFilter
from gentlegate.core.filters.symbols import SymbolsFilter
from gentlegate.core.kit.filters import Filters, Links
from gentlegate.core.records import FeedRecord
from gentlegate.core.text.folding import fold_name

KEYS = tuple(Filters.model_fields)
_MOST_BUILT = 6
_built: dict[str, list[tuple[Any, Any]]] = {}

__all__ = ["KEYS", "Filter", "Finding", "build_filters"]


def _once(key: str, settings: Any, make: Callable[[], Any]) -> Any:
    """What was made of the same settings lately, so that a change elsewhere does not build long lists anew."""
    known = _built.setdefault(key, [])
    for old, made in known:
        if old == settings:
            return made
    made = make()
    _built[key] = [*known[-_MOST_BUILT + 1 :], (settings, made)]
    return made


def build_filters(settings: Filters, feeds: Mapping[str, FeedRecord]) -> list[Filter]:
    """Every filter with its settings; `feeds` are the imported lists by their folded names."""
    links = _links(settings.links, feeds)
    phrases: PhrasesFilter = _once("phrases", settings.phrases, lambda: PhrasesFilter(settings.phrases))
    newcomers = (settings.newcomers, links.settings.allowed)
    return [
        CapitalsFilter(settings.capitals),
        SymbolsFilter(settings.symbols),
        EmotesFilter(settings.emotes),
        LengthFilter(settings.length),
        RepeatsFilter(settings.repeats),
        ResendsFilter(settings.resends),
        PaceFilter(settings.pace),
        links,
        phrases,
        NamesFilter(settings.names, phrases.entries),
        MentionsFilter(settings.mentions),
        ActionsFilter(settings.actions),
        FalseNoticeFilter(settings.false_notice),
        CopycatsFilter(settings.copycats),
        _once("newcomers", newcomers, lambda: NewcomersFilter(settings.newcomers, links.allows)),
    ]


def _links(settings: Links, feeds: Mapping[str, FeedRecord]) -> LinksFilter:
    used = [record for feed in settings.feeds if feed.on and (record := feeds.get(fold_name(feed.name)))]
    mark = [(record.at, len(record.hosts)) for record in used]

    def make() -> LinksFilter:
        return LinksFilter(settings, [record.hosts for record in used])

    found: LinksFilter = _once("links", (settings, mark), make)
    return found
