"""Follows, subscriptions, gifts, tips and raids are answered by templates in turn."""

from __future__ import annotations

from gentlegate.core.commands.variables import channel_variables, person_variables
from gentlegate.core.effects import Cause, Effect
from gentlegate.core.events import Happening
from gentlegate.core.parts import Parts
from gentlegate.core.stream import saying


def answer(parts: Parts, happening: Happening, now: int) -> list[Effect]:
    """The reply to something that happened, if there is a template for it."""
    templates = getattr(parts.kit.happenings, happening.what)
    platform = happening.platform
    if not templates:
        return []
    if platform not in parts.streams.now.live and not parts.abilities(platform).offline_chat:
        return []
    record = parts.state.shown.edit(f"happenings.{happening.what}")
    place = (record.numbers[-1] + 1) % len(templates) if record.numbers else 0
    record.numbers = [place]
    person = happening.person
    amount = happening.amount
    variables = channel_variables(parts, platform, now) | {
        "person": person_variables(person, parts.level(person), now),
        "amount": int(amount) if amount is not None and amount == int(amount) else amount,
        "text": happening.text or "",
    }
    about = f"happenings.{happening.what}.{place}"
    text = saying.rendered(parts, templates[place], variables, about, now)
    if not isinstance(text, str):
        return [text]
    return saying.said_on(parts, platform, text, Cause("happening", happening.what), now)
