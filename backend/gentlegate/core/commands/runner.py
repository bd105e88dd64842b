"""Carrying out a command: the checks in their order, then the counters, then the reply."""

from __future__ import annotations

from typing import Any

from gentlegate.core.builtins.base import Plan
from gentlegate.core.builtins.registry import REGISTRY
from gentlegate.core.commands.cooldowns import Wait
from gentlegate.core.commands.hearing import Heard
from gentlegate.core.commands.replies import answer
from gentlegate.core.commands.templates import render
from gentlegate.core.commands.use import Use
from gentlegate.core.commands.values import SpanWords
from gentlegate.core.commands.variables import channel_variables, use_variables
from gentlegate.core.counters import Duplicate, moved_effects
from gentlegate.core.effects import Effect, Refused, Warned
from gentlegate.core.errors import KitError, TemplateProblem
from gentlegate.core.events import Message
from gentlegate.core.kit.commands import Command, CountStep
from gentlegate.core.parts import Parts, Slot
from gentlegate.core.records import CommandRecord


def run_command(parts: Parts, heard: Heard, message: Message, level: int, identity: str, now: int) -> list[Effect]:
    """The effects of a command that was heard."""
    slot = parts.slots[heard.name]
    if slot.platforms is not None and message.platform not in slot.platforms:
        return []
    use = Use(message, slot.shown, heard.args, identity, level, now)
    return _run(parts, slot, use)


def run_cue(parts: Parts, slot: Slot, message: Message, level: int, identity: str, now: int) -> list[Effect]:
    """The effects of a cue that was heard."""
    return _run(parts, slot, Use(message, slot.shown, message.text, identity, level, now, "cue"))


def _run(parts: Parts, slot: Slot, use: Use) -> list[Effect]:
    identity, now = use.identity, use.now
    plan = None if slot.command else REGISTRY[slot.key.removeprefix("/")].plan(use, parts)
    refused = _first_refusal(parts, slot, use, plan)
    if refused is not None:
        return refused
    if plan is None or plan.cools:
        stream = parts.streams.now.number
        parts.cooldowns.start(slot.key, identity, use.person.name, slot.cooldown, now, stream)
        parts.cooldowns.prune(parts.cooldown_of, now, stream)
    record = parts.state.commands.edit(slot.key)
    record.uses += 1
    if plan is not None:
        try:
            effects, said = plan.run()
        except KitError as error:
            effects, said = [], f"That cannot be: {error.problem}."
        return [*effects, *_say(parts, use, said, "private" if plan.private else "say")]
    assert slot.command is not None
    return [*_count(parts, slot.command, use), *_reply(parts, slot.command, use, record)]


def _first_refusal(parts: Parts, slot: Slot, use: Use, plan: Plan | None) -> list[Effect] | None:
    """on → when → platform → people/level → arguments → cooldown → same-moment guard."""
    if not slot.on:
        return [_refused(use, "disabled")]
    if state := parts.state_found(slot.when):
        return [_refused(use, state)]
    needs = slot.sets_needs if plan and plan.changes and slot.sets_needs else slot.needs
    why = parts.refusal(needs, use.person, use.level)
    if why is None and plan and plan.may and not plan.may():
        why = "level"
    if why:
        return [_refused(use, why), *_refusal_reply(parts, slot, use, "level", None)]
    if plan and plan.problem:
        return [_refused(use, plan.why), *_say(parts, use, plan.problem)]
    if plan is None or plan.cools:
        stream = parts.streams.now.number
        wait = parts.cooldowns.wait(slot.key, use.identity, use.level, slot.cooldown, use.now, stream)
        if wait:
            return [_refused(use, "cooldown", wait), *_refusal_reply(parts, slot, use, "cooldown", wait)]
    if slot.command and slot.command.private_only and not parts.abilities(use.message.platform).private:
        return [_refused(use, "unsupported")]
    said = _duplicate(parts, slot.command, use) if slot.command else plan and plan.guard and plan.guard()
    return [_refused(use, "duplicate"), *_say(parts, use, said)] if said else None


def _refused(use: Use, why: Any, wait: Wait | None = None) -> Refused:
    return Refused(
        at=use.now,
        platform=use.message.platform,
        message=use.message.id,
        command=use.name,
        why=why,
        wait=wait.seconds if wait else None,
        cause=use.cause,
    )


def _refusal_reply(parts: Parts, slot: Slot, use: Use, key: str, wait: Wait | None) -> list[Effect]:
    text = getattr(slot.command.refusals, key) if slot.command else None
    if not text:
        return []
    variables = use_variables(parts, use, parts.state.commands.edit(slot.key).uses)
    variables["wait"] = (
        "until the next stream" if wait and wait.left is None else SpanWords(wait.left or 0) if wait else ""
    )
    return _rendered(parts, use, text, variables, "say")


def _say(parts: Parts, use: Use, text: str, mode: str = "say", platforms: list[str] | None = None) -> list[Effect]:
    here = use.message.platform
    said: list[Effect] = []
    for name in platforms or [here]:
        said += answer(text, mode, use.message, name, parts.abilities(name), use.cause, use.now)
    return said


def _rendered(
    parts: Parts,
    use: Use,
    text: str,
    variables: dict[str, Any],
    mode: str,
    platforms: list[str] | None = None,
) -> list[Effect]:
    try:
        said = render(text, variables, lambda: parts.chance("reply", use.message.platform, use.message.id))
    except TemplateProblem as error:
        return [Warned(at=use.now, about=f"{use.kind}s.{use.name}", problem=str(error), cause=use.cause)]
    return _say(parts, use, said, mode, platforms)


def choose_reply(parts: Parts, command: Command, record: CommandRecord) -> str:
    """The next of the command's replies, by its `choose`."""
    texts = command.reply
    index = 0
    if len(texts) > 1 and command.choose == "in turn":
        index = record.turn % len(texts)
    elif len(texts) > 1 and command.choose == "shuffled":
        index = parts.chance("choose", command.name, record.turn).randrange(len(texts))
        if index == record.last_reply:
            index = (index + 1) % len(texts)
    record.turn += 1
    record.last_reply = index
    return texts[index]


def _reply(parts: Parts, command: Command, use: Use, record: CommandRecord) -> list[Effect]:
    platforms = None
    if command.answer_on == "all":
        platforms = sorted({use.message.platform, *parts.streams.now.live})
    variables = use_variables(parts, use, record.uses)
    mode = "private" if command.private_only else command.mode
    return _rendered(parts, use, choose_reply(parts, command, record), variables, mode, platforms)


def _step_text(step: CountStep) -> str:
    return f"={step.set}" if step.set is not None else f"{step.by:+d}"


def _duplicate(parts: Parts, command: Command, use: Use) -> str | None:
    for step in command.counts:
        counter = parts.counters.find(step.counter)
        if counter is None:
            continue
        found: Duplicate | None = parts.counters.duplicate(counter, _step_text(step), use.identity, use.now)
        if found:
            return found.words
    return None


def _count(parts: Parts, command: Command, use: Use) -> list[Effect]:
    effects: list[Effect] = []
    for step in command.counts:
        counter = parts.counters.find(step.counter)
        if counter is None:
            continue
        moved = parts.counters.step(counter, _step_text(step), use.identity, use.person.name, use.now)
        effects += moved_effects(moved, use.person.key, use.now, use.cause)
    return effects


def notice_text(parts: Parts, template: str, platform: str, now: int, about: str) -> str:
    """A notice as it reads on a platform. TemplateProblem if it fails."""
    return render(template, channel_variables(parts, platform, now), lambda: parts.chance("notice", about, now))
