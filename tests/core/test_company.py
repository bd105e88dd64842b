"""Messages among others: `resends`, `pace`, `copycats`, and how long each is remembered."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.company import FIRST_COPIES, Company
from gentlegate.core.moments import SECOND
from tests.support.logs import live, of, run, says

QUIET = {"links": {"on": False}, "newcomers": {"on": False}}


def outcomes(key: str, *messages: Any, people: dict[str, Any] | None = None, **values: Any) -> list[Any]:
    """For each message, what this filter measured, or None."""
    kit = {"filters": QUIET | {key: {"strikes": 0, **values}}, "people": people or {}}
    verdicts = of(run(kit, live(), *messages, every_verdict=True), "verdict")
    return [next((r.measured for r in v.reasons if r.filter == key), None) for v in verdicts]


class Resends(unittest.TestCase):
    def test_the_fourth_copy_within_a_minute(self) -> None:
        lines = [says(n, "look at my bowl", "a") for n in (0, 10, 20, 30)]
        self.assertEqual(outcomes("resends", *lines), [None, None, None, 4])

    def test_what_is_exactly_as_old_as_the_window_is_outside(self) -> None:
        self.assertEqual(outcomes("resends", *(says(n, "bowl ok", "a") for n in (0, 20, 40, 60)))[3], None)
        self.assertEqual(outcomes("resends", *(says(n, "bowl ok", "a") for n in (0, 20, 40, 59.999)))[3], 4)

    def test_texts_are_compared_fully_folded(self) -> None:
        texts = ["free mugs here", "FREE  mugs here", "fr33 mug5 here", "frее mugs here"]
        self.assertEqual(outcomes("resends", *(says(n, t, "a") for n, t in enumerate(texts)))[3], 4)

    def test_short_ones_need_twice_as_many(self) -> None:
        found = outcomes("resends", *(says(n, "gg", "a") for n in range(8)))
        self.assertEqual(found, [None] * 7 + [8])

    def test_other_people_do_not_count_and_linked_ones_do(self) -> None:
        mixed = [says(n, "look at my bowl", "a" if n % 2 else "b") for n in range(6)]
        self.assertEqual(outcomes("resends", *mixed), [None] * 6)
        linked = {"linked": [["brook:u-a", "lantern:u-b"]]}
        lines = [says(n, "look", "a") if n % 2 else says(n, "look", "b", platform="lantern") for n in range(4)]
        self.assertEqual(outcomes("resends", *lines, people=linked)[3], 4)

    def test_a_commands_name_is_not_measured(self) -> None:
        self.assertEqual(outcomes("resends", *(says(n, "!uptime", "a") for n in range(6))), [None] * 6)


class Pace(unittest.TestCase):
    def test_the_sixteenth_line_in_ten_seconds(self) -> None:
        found = outcomes("pace", *(says(n / 10, f"line {n}", "a") for n in range(17)))
        self.assertEqual(found, [None] * 15 + [16, 17])

    @given(st.lists(st.integers(0, 4000), max_size=30), st.integers(1, 6))
    @settings(max_examples=60, deadline=None)
    def test_against_a_naive_count(self, gaps: list[int], limit: int) -> None:
        at, times, lines = 0, [], []
        for number, gap in enumerate(gaps):
            at += gap
            times.append(at)
            lines.append(says(at / 1000, f"line {number}", "a"))
        naive = [sum(1 for t in times[: n + 1] if now - t < 10_000) for n, now in enumerate(times)]
        found = outcomes("pace", *lines, messages=limit)
        self.assertEqual(found, [count if count > limit else None for count in naive])


class Copycats(unittest.TestCase):
    TEXT = "this channel is run by robots, leave now"

    def test_the_fifth_person_trips_it_and_copies_stay_stopped(self) -> None:
        lines = [says(n, self.TEXT + "!" * (n % 2), f"p{n}") for n in range(5)]
        later = [says(63, self.TEXT, "p0"), says(122, self.TEXT, "p9"), says(182, self.TEXT, "p1")]
        self.assertEqual(outcomes("copycats", *lines, *later), [None] * 4 + [5, 5, 6, None])

    def test_people_are_counted_within_the_window(self) -> None:
        lines = [says(n * 5, self.TEXT, f"p{n}") for n in range(8)]
        self.assertEqual(outcomes("copycats", *lines), [None] * 8)

    def test_one_person_is_no_flood_and_a_cheer_is_none(self) -> None:
        self.assertEqual(outcomes("copycats", *(says(n, self.TEXT, "a") for n in range(8))), [None] * 8)
        self.assertEqual(outcomes("copycats", *(says(n, "what a save", f"p{n}") for n in range(9))), [None] * 9)
        hearts = [says(n, "❤️" * 20, f"p{n}") for n in range(9)]
        self.assertEqual(outcomes("copycats", *hearts), [None] * 9)

    def test_alike_is_measured_against_the_first_copy(self) -> None:
        base = "abcdefghijklmnopqrst"
        lines = [says(n, base[: 20 - n] + base[:n].upper() + "z" * n, f"p{n}") for n in range(5)]
        self.assertEqual(outcomes("copycats", *lines)[4], None)

    def test_the_ladders_nudge_becomes_a_silent_removal(self) -> None:
        effects = run({}, live(), *(says(n, self.TEXT, f"p{n}") for n in range(5)))
        (verdict,) = of(effects, "verdict")
        self.assertEqual((verdict.outcome, verdict.filter, verdict.strikes), ("remove", "copycats", 1))
        self.assertEqual(of(effects, "say"), [])

    def test_many_other_lines_do_not_push_exact_copies_out(self) -> None:
        company = Company()
        for number in range(5):
            for other in range(FIRST_COPIES * 2):
                now = number * SECOND + other
                company.crowd(f"{number} quite another line {other * 7919:x}", "x", now, 20 * SECOND, 0.9, 5)
            found = company.crowd(self.TEXT, f"p{number}", number * SECOND + 900_000, 20 * SECOND, 0.9, 5)
        self.assertEqual(found, 5)

    def test_who_fell_silent_is_forgotten(self) -> None:
        company = Company()
        for number in range(10_000):
            company.hear(f"p{number}", number * SECOND, "hello", 10 * SECOND, 60 * SECOND)
        self.assertLess(len(company._talk), 6000)


if __name__ == "__main__":
    unittest.main()
