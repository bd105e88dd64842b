"""`!teach NAME reply…`, `!reword NAME reply…`, `!forget NAME`: commands made, changed and removed from chat."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.templates import parse
from gentlegate.core.commands.use import Use
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.kit.commands import Command
from gentlegate.core.parts import Parts, lookalike_problem
from gentlegate.core.text.folding import fold_name

LONGEST_NAME, LONGEST_REPLY = 60, 2000
SHOWN = 120


class Teach:
    key = "teach"

    def plan(self, use: Use, parts: Parts) -> Plan:
        name, reply = _read(use, parts)
        prefix = parts.kit.channel.prefix
        if not name or not reply:
            return refuse(f"Write {prefix}teach NAME and then the reply.")
        if problem := _name_problem(name, parts) or reply_problem(reply):
            return refuse(problem)

        def run() -> Answer:
            made = {"name": name, "reply": reply}
            changed = parts.changes.make(f"commands.{name}", made, use.person.key, use.now, use.cause)
            return [changed], f'{prefix}{name} now says "{short(reply)}".'

        return Plan(run=run, cools=False)


class Reword:
    key = "reword"

    def plan(self, use: Use, parts: Parts) -> Plan:
        name, reply = _read(use, parts)
        prefix = parts.kit.channel.prefix
        if not name or not reply:
            return refuse(f"Write {prefix}reword NAME and then the new reply.")
        command = _own_command(name, parts)
        if isinstance(command, str):
            return refuse(command)
        if problem := reply_problem(reply):
            return refuse(problem)

        def run() -> Answer:
            path = f"commands.{command.name}"
            made = {**parts.changes.written(path), "reply": reply}
            changed = parts.changes.make(path, made, use.person.key, use.now, use.cause)
            before = " / ".join(short(text) for text in command.reply)
            return [changed], f'{prefix}{command.name} now says "{short(reply)}". Before: "{before}".'

        return Plan(run=run, cools=False)


class Forget:
    key = "forget"

    def plan(self, use: Use, parts: Parts) -> Plan:
        name, _ = _read(use, parts)
        prefix = parts.kit.channel.prefix
        if not name:
            return refuse(f"Write {prefix}forget NAME.")
        command = _own_command(name, parts)
        if isinstance(command, str):
            return refuse(command)
        if rotas := [
            rota.name
            for rota in parts.kit.rotas
            for n in rota.notices
            if n.command and fold_name(n.command) == fold_name(command.name)
        ]:
            return refuse(f"{prefix}{command.name} is a notice of {rotas[0]}; take it off that rota first.")

        def run() -> Answer:
            changed = parts.changes.make(f"commands.{command.name}", None, use.person.key, use.now, use.cause)
            before = " / ".join(short(text) for text in command.reply)
            return [changed], f'{prefix}{command.name} is gone. It said "{before}".'

        return Plan(run=run, cools=False)


def _read(use: Use, parts: Parts) -> tuple[str, str]:
    name, _, reply = use.args.partition(" ")
    return name.removeprefix(parts.kit.channel.prefix), reply.strip()


def _name_problem(name: str, parts: Parts) -> str | None:
    if len(name) > LONGEST_NAME:
        return f"A name has at most {LONGEST_NAME} characters."
    if not fold_name(name).strip():
        return "Nothing is left of this name."
    taken = parts.owner_of(name)
    prefix = parts.kit.channel.prefix
    if taken is None:
        return lookalike_problem(parts, name)
    return (
        f"{prefix}{name} is {taken} already. To change what it says, write {prefix}reword {name} and the new reply."
    )


def reply_problem(reply: str) -> str | None:
    if len(reply) > LONGEST_REPLY:
        return f"A reply has at most {LONGEST_REPLY} characters."
    if "{" not in reply:
        return None
    try:
        parse(reply)
    except TemplateProblem as error:
        return f"This reply does not work: {error}."
    return None


def _own_command(name: str, parts: Parts) -> Command | str:
    """The command of this name or alias, or what to say instead."""
    slot = parts.find_slot(name)
    prefix = parts.kit.channel.prefix
    if slot is None:
        return f"There is no {prefix}{name}. Make it with {prefix}teach {name} and a reply."
    return slot.command or f"{prefix}{name} is built in; it can be changed in the Commands room."


def short(text: str) -> str:
    return text if len(text) <= SHOWN else text[: SHOWN - 1] + "…"
