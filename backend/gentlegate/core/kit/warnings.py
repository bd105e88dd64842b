"""What is odd about a kit that can be used: nothing is refused for it, but somebody should know."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from gentlegate.core.kit.commands import Command, Cue
from gentlegate.core.kit.model import Kit
from gentlegate.core.kit.names import heard_names, looks_like
from gentlegate.core.moments import in_words
from gentlegate.core.people.identity import LEVEL_OF
from gentlegate.core.text.folding import fold_name


def warnings_of(kit: Kit, beside: Kit | None = None) -> list[str]:
    """The warnings, each with its place in the kit; it may mention counters of `beside`."""
    return [*_counting(kit, beside), *_rotas(kit), *_shadowed_cues(kit), *_lookalikes(kit)]


def _counting(kit: Kit, beside: Kit | None) -> Iterator[str]:
    """Commands and cues that let people count who may not use the counter itself."""
    known = [*(beside.counters if beside else ()), *kit.counters]
    counters = {fold_name(counter.name): counter for counter in known}
    sections: tuple[tuple[str, Sequence[Command | Cue]], ...] = (("commands", kit.commands), ("cues", kit.cues))
    for section, entries in sections:
        for index, entry in enumerate(entries):
            for step in entry.counts:
                counter = counters[fold_name(step.counter)]
                level = entry.needs.level
                if LEVEL_OF[level] < LEVEL_OF[counter.needs.level]:
                    yield (
                        f"{section}.{index}.counts: {entry.name} lets {level} count {counter.shown}, "
                        f"which else needs {counter.needs.level}"
                    )


def _rotas(kit: Kit) -> Iterator[str]:
    on_rotas = {fold_name(n.command) for rota in kit.rotas for n in rota.notices if n.command}
    off = {fold_name(command.name) for command in kit.commands if not command.on}
    for index, rota in enumerate(kit.rotas):
        if not rota.notices:
            yield f"rotas.{index}.notices: {rota.name} has no notice, so it says nothing"
        if rota.every < kit.channel.spacing and not rota.alone:
            every, spacing = in_words(rota.every), in_words(kit.channel.spacing)
            yield f"rotas.{index}.every: {rota.name} comes every {every}, shorter than the spacing of {spacing}"
    for name in sorted(on_rotas & off):
        yield f"rotas: the command {name} is on a rota, but switched off"


def _shadowed_cues(kit: Kit) -> Iterator[str]:
    """Cues that never answer, as an earlier one hears the same words in the same place."""
    seen: dict[tuple[str, str, str], str] = {}
    for index, cue in enumerate(kit.cues):
        for heard in cue.hears:
            key = (cue.where, cue.match, fold_name(heard))
            if key in seen and cue.platforms is None:
                yield f"cues.{index}.hears: {cue.name} never answers to {heard!r}; {seen[key]} hears it before"
            seen.setdefault(key, cue.name)


def _lookalikes(kit: Kit) -> Iterator[str]:
    """Names that are read like another one, as their letters are of another script."""
    names = heard_names(kit)
    foreign = [name for name in names if not name.isascii()]
    for name in foreign:
        if other := looks_like(name, names):
            yield f"{names[name][0]}: {name} looks like {other}, {names[other][1]}; viewers cannot tell them apart"
