"""`!why NAME`: the last verdict on a person, in a sentence, for the moderator alone."""

from __future__ import annotations

from gentlegate.core.builtins.base import Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.judge.ladder import standing
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts

DONE = {"nudge": "nudged", "remove": "removed", "timeout": "timed out", "ban": "banned", "lift": "let in again"}


class Why:
    key = "why"

    def plan(self, use: Use, parts: Parts) -> Plan:
        name = use.args.strip()
        if not name:
            return refuse("Write whom you mean.")
        found = parts.find_account(name, use.message.platform)
        if found is None:
            return refuse(f'Nobody named "{name}" has talked here yet.')
        key, account = found
        record = parts.state.people.get(parts.directory.identity_of(key))
        if record is None or not record.acts:
            return Plan(run=lambda: ([], f"Nothing was ever done about {account.name}."), private=True)
        last = record.acts[-1]
        done = DONE.get(last.outcome, last.outcome)
        ago = f" {in_words(use.now - last.at)} ago" if last.at else ""
        why = f" for {last.about}" if last.about else " by hand" if last.filter is None else f" by {last.filter}"
        undone = ", which was undone" if last.undone else ""
        strikes = standing(record, parts.judge.ladder, use.now)
        text = f"{account.name} was {done}{ago}{why}{undone}. Strikes now: {strikes}."
        return Plan(run=lambda: ([], text), private=True)
