"""The ledger's routes: who changed or did what, when and from where; and single changes taken back."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from gentlegate.core.errors import ActError
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.kit import edit
from gentlegate.core.kit.sections import SectionName, going_back
from gentlegate.core.team import Account, Permissions
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs, not_allowed
from gentlegate.web.entries import batch, is_not_theirs, may_change_all, only_broadcasters, revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.records.taking_back import WAYS, Looked, may_take_back
from gentlegate.web.schemas import BatchDone, Wire

routes = APIRouter(prefix="/api/ledger", tags=["ledger"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("ledger"))]
PAGE = 60
ABOUT_MESSAGES = frozenset({"remove", "undo", "mark"})
"""The kinds of entries that are about a message."""


class EntryView(Wire):
    number: int
    at: int
    who: str = Field(description="The name of who did it; `gate` where nobody did.")
    key: str = Field(description="Who did it as it is stored, for the filter.")
    place: str = Field(description="`desk`, `chat` or `gate`.")
    what: str
    about: str | None
    person: str | None = Field(None, description="The person that it is about, where it is about one.")
    whom: str | None = Field(None, description="The name of that person.")
    before: Any = None
    after: Any = None
    why: str | None = Field(None, description="Where it is part of something larger: of what.")
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
        entries=await entry_views(request, account, found[:PAGE]),
        more=found[PAGE - 1][0] if len(found) > PAGE else None,
    )


async def entry_views(request: Request, account: Account, found: list[tuple[int, LedgerEntry]]) -> list[EntryView]:
    """Numbered entries as they are shown to an account."""
    gate: Gate = request.app.state.gate
    document = edit.Opened(gate.engine.document)
    people = await _people(request, [entry for _, entry in found])
    accounts = gate.engine.state.accounts
    return [
        EntryView(
            number=number,
            at=one.at,
            who=_name(request, one.who),
            key=one.who,
            place=one.place,
            what=one.what,
            about=one.about,
            person=person,
            whom=known.name if person and (known := accounts.get(person)) else None,
            before=one.before,
            after=one.after,
            why=one.why,
            undoable=may_take_back(Looked(request, one, person, document), account),
        )
        for (number, one), person in zip(found, people, strict=True)
    ]


async def _people(request: Request, entries: list[LedgerEntry]) -> list[str | None]:
    """Whom each entry is about: some write a person after the platform, some a message."""
    gate: Gate = request.app.state.gate
    ends = [(one.about or "").rpartition(" ")[2] for one in entries]
    messages = [one.about for one in entries if one.what in ABOUT_MESSAGES and one.about]
    writers = await request.app.state.ledger("writers", messages=messages) if messages else {}
    return [
        end if gate.engine.state.accounts.get(end) else writers.get(one.about)
        for one, end in zip(entries, ends, strict=True)
    ]


@routes.get("/section", summary="What putting a section back to a moment would change")
async def section_then(section: SectionName, at: int, request: Request, account: Reading) -> SectionThen:
    return await _section_then(request, account, section, at)


@routes.post("/section", summary="Put a section of the settings back to how it was at a moment")
async def section_back(body: SectionBack, request: Request, account: Reading) -> BatchDone:
    gate: Gate = request.app.state.gate
    may_change_all(request, account, [body.section], "section")
    found = await _section_then(request, account, body.section, body.at)

    def still() -> None:
        if _revision(gate, body.section) != body.revision:
            detail = "Somebody has changed this section since you looked; look again."
            raise Refused(409, "changed-meanwhile", detail, "section")

    still()
    changes = [(one.path, one.then) for one in found.changes]
    may_change_all(request, account, (path for path, _ in changes), "section")
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
    own = [one for one in changes if not is_not_theirs(account, one[0])]
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


@routes.post("/{number}/undo", summary="Take a single entry back", status_code=204)
async def undo(number: int, request: Request, account: Reading) -> None:
    gate: Gate = request.app.state.gate
    entry: LedgerEntry | None = await request.app.state.ledger("entry", number=number)
    if entry is None:
        raise ActError(f"there is no entry {number} to take back", "number")
    way = WAYS.get(entry.what)
    (person,) = await _people(request, [entry])

    def looked() -> Looked:
        return Looked(request, entry, person, edit.Opened(gate.engine.document))

    def still() -> None:
        if way is None or not way.stands(looked()):
            detail = "This was changed again since, or is not taken back from here."
            raise Refused(409, "changed-since", detail, entry.about)

    still()
    assert way is not None
    permissions: Permissions = request.app.state.access.permissions
    if not permissions.may(account, way.needs(looked())):
        raise not_allowed(account, permissions, way.needs(looked()))
    only_broadcasters(account, [entry.about or ""], "number")
    await way.go(looked(), account, still, f"entry {number} taken back")
