"""`!so NAME`, `!so set NAME text`, `!so clear NAME`: a shoutout, and the personal line before it."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.builtins.teach import reply_problem, short
from gentlegate.core.commands.use import Use
from gentlegate.core.parts import Parts
from gentlegate.core.stream import saying, shoutouts
from gentlegate.core.text.folding import fold_name


class So:
    key = "so"

    def plan(self, use: Use, parts: Parts) -> Plan:
        words = use.args.split(None, 2)
        if not words:
            return refuse(f"Write {parts.kit.channel.prefix}so NAME.")
        act = words[0].lower()
        if act in ("set", "clear") and len(words) > 1:
            return _set(use, parts, words[1], words[2] if len(words) > 2 else "", act == "clear")
        name = words[0]

        def run() -> Answer:
            here = use.message.platform
            return shoutouts.shout_out(parts, name, here, saying.of_use(use), use.now), ""

        return Plan(run=run, guard=lambda: shoutouts.held_back(parts, name, use.now))


def _set(use: Use, parts: Parts, name: str, text: str, clear: bool) -> Plan:
    """Keep a personal line, or take it away."""
    login = fold_name(name.lstrip("@"))
    if not clear and not text:
        return refuse(f"Write {parts.kit.channel.prefix}so set {name} and the line.")
    if not clear and (problem := reply_problem(text)):
        return refuse(problem)
    before = parts.kit.shoutouts.lines.get(login)
    if clear and before is None:
        return refuse(f"{login} has no line of their own.")

    def run() -> Answer:
        path = f"shoutouts.lines.{login}"
        changed = parts.changes.make(path, None if clear else text, use.person.key, use.now, use.cause)
        was = f' Before: "{short(before)}".' if before else ""
        said = f"{login} has no line any more." if clear else f'The line for {login} is now "{short(text)}".'
        return [changed], said + was

    return Plan(run=run, cools=False)
