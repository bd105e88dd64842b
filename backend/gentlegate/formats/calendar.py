"""Dated notices as an iCalendar file (RFC 5545), for the calendars of those who plan the streams."""

from __future__ import annotations

from datetime import date, timedelta

from icalendar import Calendar, Event

from gentlegate.core.kit.model import Kit, Notice, Rota
from gentlegate.core.moments import as_datetime

LONGEST_SUMMARY = 70


def notices_calendar(kit: Kit, now: int) -> str:
    """One all-day event for each notice that has a date; an open end lasts one day, an open beginning begins today."""
    calendar = Calendar()
    calendar.add("prodid", "-//Gentle Gate//Dated notices//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{kit.channel.name or 'Channel'}: dated notices")
    today = as_datetime(now).date()
    for rota in kit.rotas:
        for place, notice in enumerate(rota.notices):
            if notice.from_ or notice.until:
                calendar.add_component(_event(rota, notice, place, today, now))
    return str(calendar.to_ical().decode())


def _event(rota: Rota, notice: Notice, place: int, today: date, now: int) -> Event:
    words = notice.text if notice.text is not None else f"!{notice.command}"
    first = notice.from_ or min(today, notice.until or today)
    last = notice.until or first
    event = Event()
    event.add("uid", f"{rota.name}-{place}@gentle-gate".replace(" ", "-"))
    event.add("dtstamp", as_datetime(now - now % 1_000_000))
    event.add("dtstart", first)
    event.add("dtend", last + timedelta(days=1))
    event.add("summary", f"{rota.name}: {words[:LONGEST_SUMMARY]}")
    event.add("description", words)
    if not (notice.on and rota.on):
        event.add("status", "TENTATIVE")
    return event
