"""`!quote [number|word]`, `!quote add text`, `!quote remove number`."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.builtins.teach import short
from gentlegate.core.commands.use import Use
from gentlegate.core.commands.variables import channel_variables
from gentlegate.core.effects import Effect
from gentlegate.core.events import MODERATOR, REGULAR
from gentlegate.core.parts import Parts
from gentlegate.core.records import QuoteRecord
from gentlegate.core.stream import quotes, saying


class QuoteBuiltIn:
    key = "quote"

    def plan(self, use: Use, parts: Parts) -> Plan:
        word, _, rest = use.args.partition(" ")
        if word.lower() == "add":
            return _add(use, parts, rest.strip())
        if word.lower() == "remove":
            return _remove(use, parts, rest.strip())
        return _show(use, parts)


def _from(level: int, use: Use) -> Callable[[], bool]:
    return lambda: use.level >= level


def _add(use: Use, parts: Parts, text: str) -> Plan:
    problem = None if text else "Write the quote after add."
    if len(text) > quotes.LONGEST:
        problem = f"A quote has at most {quotes.LONGEST} characters."

    def run() -> Answer:
        person, platform = use.person, use.message.platform
        quote, changed = quotes.add(parts, text, person.key, person.name, platform, use.now, use.cause)
        return [changed], f"Quote {quote.number} is added."

    return Plan(run=run, may=_from(REGULAR, use), problem=problem, cools=False)


def _remove(use: Use, parts: Parts, number: str) -> Plan:
    quote = quotes.by_number(parts, int(number)) if number.isascii() and number.isdigit() else None
    problem = None if quote else f"There is no quote {number or 'of that number'}."

    def run() -> Answer:
        assert quote is not None
        changed = quotes.remove(parts, quote.number, use.person.key, use.now, use.cause)
        return [changed] if changed else [], f'Quote {quote.number} is removed. It was "{short(quote.text)}".'

    return Plan(run=run, may=_from(MODERATOR, use), problem=problem, cools=False)


def _show(use: Use, parts: Parts) -> Plan:
    wanted = use.args.strip()
    if wanted.isascii() and wanted.isdigit():
        found = quotes.by_number(parts, int(wanted))
        among = [found] if found else []
        problem = f"There is no quote {int(wanted)}."
    else:
        among = quotes.search(parts, wanted) if wanted else quotes.standing(parts)
        problem = f'No quote has "{short(wanted)}" in it.' if wanted else "There is no quote yet."
    if not among:
        return refuse(problem)

    def run() -> Answer:
        quote = quotes.pick(parts, among, use.message.id)
        assert quote is not None
        quotes.note_shown(parts, quote)
        return _said(use, parts, quote), ""

    return Plan(run=run)


def _said(use: Use, parts: Parts, quote: QuoteRecord) -> list[Effect]:
    platform = use.message.platform
    variables = channel_variables(parts, platform, use.now) | {"quote": quotes.variables(parts, quote)}
    text = saying.rendered(parts, parts.kit.quotes.reply, variables, "quotes.reply", use.now)
    return saying.said_on(parts, platform, text, use.cause, use.now) if isinstance(text, str) else [text]
