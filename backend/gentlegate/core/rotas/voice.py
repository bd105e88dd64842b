"""What a notice says: its text, or the reply of the command that it names, on each platform where it may be said."""

from __future__ import annotations

from gentlegate.core.commands.replies import aloud
from gentlegate.core.commands.runner import choose_reply, notice_text
from gentlegate.core.effects import Cause, Effect
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.kit.model import Notice, Rota
from gentlegate.core.parts import Parts
from gentlegate.core.records import CommandRecord
from gentlegate.core.text.folding import fold_name


class Voice:
    """Says notices. TemplateProblem where one cannot be made."""

    def __init__(self, parts: Parts) -> None:
        self._parts = parts

    def __call__(self, rota: Rota, notice: Notice, platforms: list[str], now: int) -> list[Effect]:
        template = self.template(notice)
        said: list[Effect] = []
        for name in platforms:
            text = notice_text(self._parts, template, name, now, rota.name)
            said += aloud(text, name, self._parts.abilities(name), Cause("notice", rota.name), now)
        return said

    def template(self, notice: Notice) -> str:
        """Its text, or the next reply of its command."""
        if notice.text is not None:
            return notice.text
        slot = self._parts.slots.get(fold_name(notice.command or ""))
        if slot is None or slot.command is None:
            raise TemplateProblem(f'the command "{notice.command}" is gone')
        record: CommandRecord = self._parts.state.commands.edit(slot.key)
        return choose_reply(self._parts, slot.command, record)
