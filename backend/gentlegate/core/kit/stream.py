"""The kit's `arrivals`, `shoutouts`, `happenings` and `quotes` (spec page 5)."""

from __future__ import annotations

from gentlegate.core.kit.fields import Name, PersonString, Section, Span, Templates, Text
from gentlegate.core.moments import MINUTE


class Arrivals(Section):
    """What becomes of a person's first message in a stream."""

    greet: Text | None = None
    shoutout: list[PersonString] = []
    skip: list[PersonString] = []


class Shoutouts(Section):
    """`lines` are personal: they stand before the template, by the channel's log-in."""

    reply: Text = "Have a look at {{ target.name }}: {{ target.link }}, last seen with {{ target.category }}"
    plain: Text = "Say hello to {{ target.name }}: {{ target.link }}"
    guard: Span = 5 * MINUTE
    lines: dict[Name, Text] = {}


class Happenings(Section):
    """One or more templates for each, used in turn."""

    follow: Templates | None = None
    subscribe: Templates | None = None
    gift: Templates | None = None
    tip: Templates | None = None
    raid: Templates | None = None


class Quotes(Section):
    reply: Text = (
        "Quote {{ quote.number }}: “{{ quote.text }}” {{ quote.said_by }}, {{ quote.date }}"
        "{% if quote.category != '' %}, {{ quote.category }}{% endif %}"
    )
