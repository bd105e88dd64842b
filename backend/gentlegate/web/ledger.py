"""The ledger's routes: who changed or did what, when and from where; and single changes taken back."""

from __future__ import annotations

import re
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from gentlegate.core.errors import ActError
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.kit import edit
from gentlegate.core.kit.sections import SectionName, going_back
from gentlegate.core.kit.taking_back import holds, way_back
from gentlegate.core.stream import quotes
from gentlegate.core.team import Account, Permissions
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs, not_allowed
from gentlegate.web.entries import BROADCASTERS, batch, change_all, only_broadcasters, revision
from gentlegate.web.kit_schemas import BatchDone
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import Wire

routes = APIRouter(prefix="/api/ledger", tags=["ledger"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("ledger"))]
PAGE = 60
_QUOTE = re.compile(r"quotes\.(\d+)")


class EntryView(Wire):
    number: int
    at: int
    who: str = Field(description="The name of who did it; `gate` where nobody did.")
    key: str = Field(description="Who did it as it is stored, for the filter.")
    place: str = Field(description="`desk`, `chat` or `gate`.")
    what: str
    about: str | None
    whom: str | None = Field(None, description="The name of the person that it is about, where it is about one.")
    before: Any = None
    after: Any = None
    undoable: bool = Field(description="Whether this single change can be taken back now.")


class LedgerPage(Wire):
    entries: list[EntryView]
    more: int | None = Field(description="The `before` of the next page, if there is one.")


class KindView(Wire):
    what: str
    count: int


class PersonView(Wire):
    key: str
    name: str


class SectionChange(Wire):
    path: str
    now: Any = None
    then: Any = None


class SectionThen(Wire):
    since: int = Field(description="From when on these settings held.")
    revision: str = Field(description="Of the section as it is now; give it back when putting it back.")
    changes: list[SectionChange]
    kept: int = Field(description="Changes that only the broadcaster makes, and that are left out.")


class SectionBack(Wire):
    section: SectionName
    at: int
    revision: str


class Filters(Wire):
    kinds: list[KindView]
    people: list[PersonView]


def _name(request: Request, who: str) -> str:
    gate: Gate = request.app.state.gate
    record = gate.engine.state.accounts.get(who)
    return str(request.app.state.names.get(who) or (record.name if record else who))


@routes.get("", summary="Entries of the ledger, newest first")
async def page(
    request: Request,
    account: Reading,
    who: str | None = None,
    what: str | None = None,
    text: str = "",
    before: int | None = None,
    since: int | None = None,
    until: int | None = None,
) -> LedgerPage:
    """`since` and `until` are moments in microseconds, the second one not included."""
    asked = {"who": who, "kind": what, "text": text, "before": before, "most": PAGE + 1}
    asked |= {"since": since, "until": until}
    found = await request.app.state.ledger("search", **asked)
    return LedgerPage(
        entries=entry_views(request, account, found[:PAGE]),
        more=found[PAGE - 1][0] if len(found) > PAGE else None,
    )


def entry_views(request: Request, account: Account, found: list[tuple[int, LedgerEntry]]) -> list[EntryView]:
    """Numbered entries as they are shown to an account."""
    gate: Gate = request.app.state.gate
    document = edit.Opened(gate.engine.document)
    return [
        EntryView(
            number=number,
            at=one.at,
            who=_name(request, one.who),
            key=one.who,
            place=one.place,
            what=one.what,
            about=one.about,
            whom=_whom(gate, one.about),
            before=one.before,
            after=one.after,
            undoable=_standing(gate, document, one) and _may_undo(request, account, one),
        )
        for number, one in found
    ]


def _whom(gate: Gate, about: str | None) -> str | None:
    """The name behind `platform:id`, which some entries write after the platform."""
    known = gate.engine.state.accounts.get((about or "").rpartition(" ")[2])
    return known.name if known else None


def _standing(gate: Gate, document: edit.Opened, entry: LedgerEntry) -> bool:
    """Whether what this entry says still holds, so that it can be taken back."""
    if entry.what != "setting" or entry.about is None or entry.before == entry.after:
        return False
    if quote := _QUOTE.fullmatch(entry.about):
        record = gate.engine.state.quotes.get(quotes.key_of(int(quote[1])))
        return record is not None and record.removed == (entry.after is None)
    if ".feeds." in entry.about:
        return False
    return holds(document, entry.about, entry.before, entry.after)


def _may_undo(request: Request, account: Account, entry: LedgerEntry) -> bool:
    permissions: Permissions = request.app.state.access.permissions
    about = entry.about or ""
    own = account.level == "broadcaster" or not about.startswith(BROADCASTERS)
    return own and permissions.may(account, _act_of(about))


def _act_of(about: str) -> str:
    """The permission that a change of this place needs."""
    if _QUOTE.fullmatch(about):
        return "quote"
    if about.startswith("people"):
        return "people"
    return "filters" if about.startswith(("filters", "ladder", "drawbridge")) else "commands"


@routes.get("/section", summary="What putting a section back to a moment would change")
async def section_then(section: SectionName, at: int, request: Request, account: Reading) -> SectionThen:
    return await _section_then(request, account, section, at)


@routes.post("/section", summary="Put a section of the settings back to how it was at a moment")
async def section_back(body: SectionBack, request: Request, account: Reading) -> BatchDone:
    gate: Gate = request.app.state.gate
    act = _act_of(body.section)
    permissions: Permissions = request.app.state.access.permissions
    if not permissions.may(account, act):
        raise not_allowed(account, permissions, act)
    found = await _section_then(request, account, body.section, body.at)

    def still() -> None:
        if _revision(gate, body.section) != body.revision:
            detail = "Somebody has changed this section since you looked; look again."
            raise Refused(409, "changed-meanwhile", detail, "section")

    still()
    changes = [(one.path, one.then) for one in found.changes]
    return await batch(gate, account, changes, f"{body.section} put back", still)


async def _section_then(request: Request, account: Account, section: str, at: int) -> SectionThen:
    """What would change; places that are not this account's to change are left as they are."""
    gate: Gate = request.app.state.gate
    then = await request.app.state.settings_at(at)
    if then is None:
        raise Refused(404, "not-found", "There were no settings at that time; choose a later one.", "at")
    since, document = then
    current = edit.Opened(gate.engine.document)
    changes = going_back(gate.engine.document, document, section)
    own = [one for one in changes if account.level == "broadcaster" or not one[0].startswith(BROADCASTERS)]
    return SectionThen(
        since=since,
        revision=_revision(gate, section),
        changes=[SectionChange(path=path, now=current.read(path), then=value) for path, value in own],
        kept=len(changes) - len(own),
    )


def _revision(gate: Gate, section: str) -> str:
    return revision(gate.engine.document.get(section))


@routes.get("/filters", summary="Every kind of entry and everybody who is in it")
async def filters(request: Request, _: Reading) -> Filters:
    read = request.app.state.ledger
    return Filters(
        kinds=[KindView(what=what, count=count) for what, count in await read("kinds")],
        people=[PersonView(key=key, name=_name(request, key)) for key in await read("people")],
    )


@routes.post("/{number}/undo", summary="Take a single change of the settings back", status_code=204)
async def undo(number: int, request: Request, account: Reading) -> None:
    gate: Gate = request.app.state.gate
    entry: LedgerEntry | None = await request.app.state.ledger("entry", number=number)
    if entry is None or entry.about is None:
        raise ActError(f"there is no entry {number} to take back", "number")

    def still() -> None:
        if not _standing(gate, edit.Opened(gate.engine.document), entry):
            detail = "This was changed again since, or is not taken back from here."
            raise Refused(409, "changed-since", detail, entry.about)

    still()
    only_broadcasters(account, [entry.about], "number")
    if not _may_undo(request, account, entry):
        raise not_allowed(account, request.app.state.access.permissions, _act_of(entry.about))
    if quote := _QUOTE.fullmatch(entry.about):
        restored: dict[str, Any] = {"restore": True} if entry.after is None else {}
        await gate.act(account, "quote", number=int(quote[1]), **restored)
        return
    await change_all(gate, account, [way_back(entry.about, entry.before, entry.after)], still=still)
