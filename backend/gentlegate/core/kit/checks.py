"""What no single field can tell: names in use twice, templates that do not parse, things that are not there."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from gentlegate.core.builtins.catalogue import BUILT_INS
from gentlegate.core.errors import KitError, TemplateProblem
from gentlegate.core.kit.commands import CountStep
from gentlegate.core.kit.filters import Filters
from gentlegate.core.kit.model import Kit
from gentlegate.core.kit.names import heard_names
from gentlegate.core.kit.stream import Happenings
from gentlegate.core.text.folding import fold_name
from gentlegate.core.text.link_entries import read_entry
from gentlegate.core.text.patterns import read_pattern
from gentlegate.core.text.phrases import read_phrase


def check_whole(kit: Kit, beside: Kit | None = None) -> None:
    """Raise KitError for the first fault found; counters and commands of `beside` may be mentioned too."""
    for key in kit.built_ins:
        if key not in BUILT_INS:
            raise KitError(f"built_ins.{key}", f"no such built-in; there are: {', '.join(BUILT_INS)}")
    _unique("counters", (counter.name for counter in kit.counters))
    _unique("rotas", (rota.name for rota in kit.rotas))
    _unique("cues", (cue.name for cue in kit.cues))
    _pinned(kit)
    _hears(kit)
    heard_names(kit)
    _mentioned_things(kit, beside)
    _templates(kit)
    _entries(kit.filters)


def _hears(kit: Kit) -> None:
    for index, cue in enumerate(kit.cues):
        for place, heard in enumerate(cue.hears):
            with _at(f"cues.{index}.hears.{place}"):
                if cue.match == "pattern":
                    read_pattern(index, heard)
                elif not fold_name(heard).strip():
                    raise ValueError("nothing is left of this to hear")


def _entries(filters: Filters) -> None:
    for side in ("allowed", "forbidden"):
        for index, entry in enumerate(getattr(filters.links, side)):
            with _at(f"filters.links.{side}.{index}"):
                read_entry(entry.text)
    for index, phrase in enumerate(filters.phrases.entries):
        with _at(f"filters.phrases.entries.{index}.text"):
            if phrase.mode == "pattern":
                read_pattern(index, phrase.text)
            else:
                whole = phrase.mode == "word"
                read_phrase(index, phrase.text, whole=whole, disguised=phrase.disguised, lang=phrase.lang)
    listed = [("phrases.allowed", filters.phrases.allowed), ("newcomers.phrases", filters.newcomers.phrases or [])]
    for where, texts in listed:
        for index, text in enumerate(texts):
            with _at(f"filters.{where}.{index}"):
                read_phrase(index, text)


@contextmanager
def _at(path: str) -> Iterator[None]:
    try:
        yield
    except ValueError as error:
        raise KitError(path, str(error)) from None


def _unique(section: str, names: Iterable[str]) -> None:
    seen: dict[str, int] = {}
    for index, name in enumerate(names):
        key = fold_name(name)
        if key in seen:
            raise KitError(f"{section}.{index}.name", f'"{name}" is the name of {section}.{seen[key]} already')
        seen[key] = index


def _mentioned_things(kit: Kit, beside: Kit | None) -> None:
    kits = [kit, beside] if beside else [kit]
    counters = {fold_name(counter.name) for one in kits for counter in one.counters}
    commands = {fold_name(command.name) for one in kits for command in one.commands}
    counting: list[tuple[str, list[list[CountStep]]]] = [
        ("commands", [command.counts for command in kit.commands]),
        ("cues", [cue.counts for cue in kit.cues]),
    ]
    for section, counted in counting:
        for index, steps in enumerate(counted):
            for place, step in enumerate(steps):
                if fold_name(step.counter) not in counters:
                    where = f"{section}.{index}.counts.{place}.counter"
                    raise KitError(where, f'no counter is named "{step.counter}"')
    for index, rota in enumerate(kit.rotas):
        for place, notice in enumerate(rota.notices):
            if notice.command is not None and fold_name(notice.command) not in commands:
                raise KitError(f"rotas.{index}.notices.{place}.command", f'no command is named "{notice.command}"')


def _stream_templates(kit: Kit) -> Iterator[tuple[str, str]]:
    if kit.arrivals.greet is not None:
        yield "arrivals.greet", kit.arrivals.greet
    for key in sorted({"reply", "plain"} & kit.shoutouts.model_fields_set):
        yield f"shoutouts.{key}", getattr(kit.shoutouts, key)
    for name, text in kit.shoutouts.lines.items():
        yield f"shoutouts.lines.{name}", text
    for what in Happenings.model_fields:
        for place, text in enumerate(getattr(kit.happenings, what) or ()):
            yield f"happenings.{what}.{place}", text
    if kit.quotes.model_fields_set:
        yield "quotes.reply", kit.quotes.reply


def _pinned(kit: Kit) -> None:
    """A word means one category."""
    seen: dict[str, str] = {}
    for index, category in enumerate(kit.channel.categories):
        for word in dict.fromkeys(fold_name(word) for word in (category.name, *category.shortcuts)):
            if word in seen:
                path = f"channel.categories.{index}"
                raise KitError(path, f'"{word}" means {seen[word]} already; choose another word')
            seen[word] = category.name


def _templates(kit: Kit) -> None:
    found: list[tuple[str, str]] = []
    for index, command in enumerate(kit.commands):
        found += [(f"commands.{index}.reply.{place}", text) for place, text in enumerate(command.reply)]
        for key in ("level", "cooldown"):
            if text := getattr(command.refusals, key):
                found.append((f"commands.{index}.refusals.{key}", text))
    for index, cue in enumerate(kit.cues):
        found += [(f"cues.{index}.reply.{place}", text) for place, text in enumerate(cue.reply)]
    for index, rota in enumerate(kit.rotas):
        for place, notice in enumerate(rota.notices):
            if notice.text is not None:
                found.append((f"rotas.{index}.notices.{place}.text", notice.text))
    found += _stream_templates(kit)
    for key in Filters.model_fields:
        if text := getattr(kit.filters, key).reply:
            found.append((f"filters.{key}.reply", text))
    if not any("{" in text for _, text in found):
        return
    from gentlegate.core.commands.templates import parse

    for path, text in found:
        try:
            parse(text)
        except TemplateProblem as error:
            raise KitError(path, str(error)) from None
