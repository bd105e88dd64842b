"""`!pass NAME [for DURATION|stream] [filters…]`: let somebody do for a while what a filter would stop."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.errors import ActError
from gentlegate.core.filters import KEYS
from gentlegate.core.judge import passes
from gentlegate.core.judge.by_hand import pass_end
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts

USAGE = "Write !pass NAME, and if you like: for 5m (or for stream), and the filters, such as links capitals."


class PassBuiltIn:
    key = "pass"

    def plan(self, use: Use, parts: Parts) -> Plan:
        words = use.args.replace(",", " ").split()
        if not words:
            return refuse(USAGE)
        found = parts.find_account(words[0], use.message.platform)
        if found is None:
            return refuse(f'Nobody named "{words[0]}" has talked here yet. {USAGE}')
        key, account = found
        length, filters = _read(words[1:])
        try:
            until = pass_end(parts, length, use.now)
        except ActError as error:
            return refuse(f"No pass: {error}.")
        if odd := [word for word in filters if word not in KEYS]:
            return refuse(f'There is no filter "{odd[0]}"; there are: {", ".join(KEYS)}.')
        chosen = tuple(dict.fromkeys(filters)) or passes.DEFAULT_FILTERS

        def run() -> Answer:
            identity = parts.directory.identity_of(key)
            by = use.person.key
            given = passes.give(parts.state, identity, account.name, chosen, until, by, use.now, use.cause)
            how_long = "until the stream ends" if until is None else f"for {in_words(until - use.now)}"
            return [given], f"{account.name} has a pass for {', '.join(chosen)} {how_long}."

        return Plan(run=run, cools=False)


def _read(words: list[str]) -> tuple[str | None, list[str]]:
    """The length wanted, and the filters."""
    length: str | None = None
    filters = []
    rest = iter(words)
    for word in rest:
        plain = word.lower()
        if plain == "for":
            length = next(rest, "")
        elif plain == "stream" or plain[:1].isdigit():
            length = plain
        else:
            filters.append(plain)
    return length, filters
