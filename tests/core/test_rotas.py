from __future__ import annotations

import itertools
import json
import unittest
from datetime import date, timedelta
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, KitError
from gentlegate.core.moments import parse_moment
from gentlegate.core.rotas.order import midnight_after, today
from gentlegate.core.state import State
from tests.support.logs import at, desk, live, moments, of, offline, run, said, says

MIN = 60.0


def rota(name: str = "r", **fields: Any) -> dict[str, Any]:
    return {
        "name": name,
        "every": "10m",
        "chat_lines": 0,
        "notices": [{"text": f"{name}1"}, {"text": f"{name}2"}],
    } | fields


def posts(kit: dict[str, Any], *events: Any, until: float) -> list[tuple[str, float]]:
    effects = of(run(kit, *events, until=until), "say")
    return [(e.text, m) for e, m in zip(effects, moments(effects), strict=True) if e.cause.kind == "notice"]


class Rules(unittest.TestCase):
    def test_1_silent_before_the_stream_then_first_after(self) -> None:
        self.assertEqual(posts({"rotas": [rota()]}, until=7200), [])
        kit = {"rotas": [rota(first_after="2m")]}
        self.assertEqual(posts(kit, live(), until=23 * MIN), [("r1", 2 * MIN), ("r2", 12 * MIN), ("r1", 22 * MIN)])

    def test_2_and_3_it_waits_for_lines_and_posts_with_the_line_that_completes_them(self) -> None:
        kit = {"rotas": [rota(chat_lines=2)], "people": {"ignored": ["brook:@bot"]}}
        lines = [says(700, "a"), says(710, "b", "bot"), says(720, "bad.test"), says(730, "!nothing")]
        self.assertEqual(posts(kit, live(), *lines, until=800), [("r1", 730)])

    def test_3_it_posts_after_the_answer_on_its_live_platforms(self) -> None:
        kit = {"rotas": [rota(chat_lines=1)], "commands": [{"name": "kiln", "reply": "hot"}]}
        effects = run(kit, live(), live(1, "lantern"), says(700, "!kiln"))
        self.assertEqual(
            [(s.platform, s.text) for s in of(effects, "say")],
            [("brook", "hot"), ("brook", "r1"), ("lantern", "r1")],
        )
        only = {"rotas": [rota(platforms=["lantern"])]}
        self.assertEqual(posts(only, live(), live(1000, "lantern"), until=1100), [("r1", 1000)])

    def test_3_what_fell_due_in_the_gap_posts_when_the_stream_goes_on(self) -> None:
        self.assertEqual(posts({"rotas": [rota()]}, live(), offline(500), live(700), until=800), [("r1", 700)])

    def test_4_the_next_is_counted_from_the_post(self) -> None:
        kit = {"rotas": [rota(chat_lines=1)]}
        self.assertEqual(
            posts(kit, live(), says(900, "a"), says(901, "b"), until=2000), [("r1", 900), ("r2", 1500)]
        )

    def test_5_spacing_holds_back_in_order_of_readiness(self) -> None:
        kit = {"rotas": [rota("a"), rota("b"), rota("c", alone=True)]}
        self.assertEqual(posts(kit, live(), until=700), [("a1", 600), ("c1", 600), ("b1", 660)])

    def test_5_a_rota_does_not_post_again_while_another_is_held_back(self) -> None:
        kit = {
            "channel": {"spacing": "90s"},
            "rotas": [rota("a", every="1m", first_after="60s"), rota("b", every="1h", first_after="70s")],
        }
        self.assertEqual(posts(kit, live(), until=260), [("a1", 60), ("b1", 150), ("a2", 240)])

    def test_6_in_turn_skips_what_may_not_be_said(self) -> None:
        notices = [
            {"text": "off", "on": False},
            {"text": "past", "until": "2026-03-06"},
            {"text": "today", "from": "2026-03-07", "until": "2026-03-07"},
            {"text": "elsewhere", "platforms": ["lantern"]},
            {"text": "always"},
        ]
        kit = {"rotas": [rota(notices=notices)]}
        self.assertEqual([text for text, _ in posts(kit, live(), until=31 * MIN)], ["today", "always", "today"])

    def test_6_dates_are_in_the_channels_zone_and_a_date_that_comes_wakes_the_rota(self) -> None:
        notices = [{"text": "new day", "from": "2026-03-08"}]
        kit = {"channel": {"timezone": "Europe/Helsinki"}, "rotas": [rota(notices=notices)]}
        self.assertEqual(
            posts(kit, live(), until=5 * 3600),
            [("new day", 4 * 3600)] + [("new day", 4 * 3600 + 600 * n) for n in range(1, 7)],
        )

    def test_6_the_place_is_kept_over_streams(self) -> None:
        kit = {"rotas": [rota()]}
        self.assertEqual([t for t, _ in posts(kit, live(), offline(650), live(2000), until=2700)], ["r1", "r2"])

    @given(st.integers(0, 50), st.integers(1, 6))
    @settings(max_examples=40, deadline=None)
    def test_6_shuffled_rounds(self, seed: int, count: int) -> None:
        notices = [{"text": str(number)} for number in range(count)]
        effects = run({"rotas": [rota(order="shuffled", notices=notices)]}, live(), until=24 * 600 + 1, seed=seed)
        texts = said(effects)
        for start in range(0, len(texts) - count + 1, count):
            self.assertEqual(sorted(texts[start : start + count]), sorted(str(n) for n in range(count)))
        if count > 1:
            self.assertTrue(all(a != b for a, b in itertools.pairwise(texts)))

    def test_7_offline_posts_once_the_end_is_established(self) -> None:
        kit = {"rotas": [rota(every_offline="30m")], "platforms": {"lantern": {"offline_chat": False}}}
        found = posts(
            kit, live(), live(0, "lantern"), offline(100), offline(100, "lantern"), until=100 + 600 + 3601
        )
        self.assertEqual(found, [("r1", 2500), ("r2", 4300)])

    def test_8_a_notice_that_fails_is_skipped_with_a_warning(self) -> None:
        kit = {"rotas": [rota(notices=[{"text": "{{ 1 | divided_by: 0 }}"}, {"text": "fine"}])]}
        effects = run(kit, live(), until=601)
        self.assertEqual([e.effect for e in effects], ["warning", "say"])

    def test_9_a_shorter_rhythm_counts_from_the_last_post_but_never_posts_at_once(self) -> None:
        engine = Engine({"rotas": [rota()]})
        engine.handle(live())
        engine.advance(at(601))
        engine.handle(desk(1000, "setting", path="rotas.r", value=rota(every="5m")))
        effects = engine.advance(at(1100))
        self.assertEqual(moments(effects), [1060])

    def test_a_notice_may_be_a_commands_reply(self) -> None:
        kit = {
            "commands": [{"name": "shelf", "reply": "mugs {{ uses }}", "needs": {"level": "lead"}}],
            "rotas": [rota(notices=[{"command": "Shelf"}])],
        }
        self.assertEqual(posts(kit, live(), until=601), [("mugs", 600)])

    def test_what_was_missed_while_stopped_does_not_pile_up(self) -> None:
        engine = Engine({"rotas": [rota()]})
        engine.handle(live())
        engine.resume(at(10_000))
        self.assertEqual(len(of(engine.advance(at(10_000)) + engine.handle(says(10_000, "x")), "say")), 1)


class Laws(unittest.TestCase):
    @given(
        st.lists(st.tuples(st.integers(1, 15), st.integers(0, 4), st.booleans()), min_size=1, max_size=4),
        st.lists(st.integers(1, 120), max_size=80),
        st.integers(0, 180),
    )
    @settings(max_examples=80, deadline=None)
    def test_rhythm_and_spacing_hold(
        self, rotas: list[tuple[int, int, bool]], gaps: list[int], spacing: int
    ) -> None:
        kit = {
            "channel": {"spacing": spacing},
            "rotas": [rota(f"r{i}", every=f"{e}m", chat_lines=c, alone=a) for i, (e, c, a) in enumerate(rotas)],
        }
        now, events = 0, [live()]
        for gap in gaps:
            now += gap
            events.append(says(now, f"hello at {now}"))
        effects = of(run(kit, *events, until=now + 3600), "say")
        by: dict[str, list[float]] = {}
        for effect, when in zip(effects, moments(effects), strict=True):
            by.setdefault(effect.cause.name, []).append(when)
        for index, (every, _, _) in enumerate(rotas):
            times = by.get(f"r{index}", [])
            self.assertTrue(all(b - a >= every * 60 for a, b in itertools.pairwise(times)))
        spaced = sorted((when, name) for name, times in by.items() if not rotas[int(name[1:])][2] for when in times)
        for (a, first), (b, second) in itertools.pairwise(spaced):
            self.assertTrue(first == second or b - a >= spacing)


class Changing(unittest.TestCase):
    """Rule 9, and what becomes of clocks when settings change."""

    def engine(self, **fields: Any) -> Engine:
        engine = Engine({"rotas": [rota(**fields)]})
        engine.handle(live())
        return engine

    def change(self, engine: Engine, when: float, **fields: Any) -> None:
        self.assertEqual(of(engine.handle(desk(when, "setting", path="rotas.r", value=rota(**fields))), "say"), [])

    def until(self, engine: Engine, when: float) -> list[float]:
        return moments(of(engine.advance(at(when)), "say"))

    def test_what_was_waited_for_and_is_wanted_no_more_does_not_post_at_once(self) -> None:
        for before, after in (
            ({"chat_lines": 50}, {"chat_lines": 0}),
            ({"on": False}, {}),
            ({"platforms": ["lantern"]}, {}),
            ({"notices": []}, {}),
        ):
            with self.subTest(before):
                engine = self.engine(**before)
                self.assertEqual(self.until(engine, 1000), [])
                self.change(engine, 1000, **after)
                self.assertEqual(self.until(engine, 1100), [1060])

    def test_before_the_first_post_the_rhythm_counts_from_the_beginning(self) -> None:
        engine = self.engine()
        self.change(engine, 100, every="5m")
        self.assertEqual(self.until(engine, 400), [300])

    def test_the_last_post_of_an_earlier_stream_counts_for_nothing(self) -> None:
        engine = self.engine()
        self.assertEqual(self.until(engine, 700), [600])
        engine.handle(offline(800))
        engine.handle(live(20_000))
        self.change(engine, 20_060, every="9m")
        self.assertEqual(self.until(engine, 20_600), [20_540])

    def test_another_name_keeps_clock_and_place(self) -> None:
        engine = self.engine()
        self.assertEqual(self.until(engine, 700), [600])
        renamed = rota() | {"name": "other"}
        engine.handle(desk(700, "setting", path="rotas.r", value=renamed))
        effects = of(engine.advance(at(1300)), "say")
        self.assertEqual([(e.text, m) for e, m in zip(effects, moments(effects), strict=True)], [("r2", 1200)])

    def test_away_it_may_be_given_a_rhythm(self) -> None:
        engine = self.engine()
        engine.handle(offline(100))
        self.assertEqual(self.until(engine, 1000), [])
        self.change(engine, 1000, every_offline="20m")
        self.assertEqual(self.until(engine, 2000), [700 + 1200])


class Asked(unittest.TestCase):
    def moderator(self, when: float, text: str) -> Any:
        return says(when, text, "bram", "moderator")

    def test_paused_beyond_the_stream_and_the_next_start_says_so(self) -> None:
        engine = Engine({"rotas": [rota(), rota("other")], "channel": {"prefix": "?"}})
        engine.handle(live())
        engine.handle(self.moderator(60, "?timers off r"))
        engine.handle(offline(100))
        effects = of(engine.handle(live(5000)), "say")
        self.assertEqual([e.text for e in effects], ["Still paused: r. ?timers on lets them go on."])
        self.assertEqual({e.text for e in of(engine.advance(at(5700)), "say")}, {"other1"})

    def test_after_on_it_waits_for_the_spacing(self) -> None:
        kit = {"rotas": [rota(alone=True)]}
        found = posts(kit, live(), self.moderator(10, "!timers off"), self.moderator(650, "!timers on"), until=800)
        self.assertEqual(found, [("r1", 710)])

    def test_next_restarts_the_clock_and_holds_others_back(self) -> None:
        kit = {"rotas": [rota("a"), rota("b")]}
        found = posts(kit, live(), self.moderator(590, "!timers next b"), until=1300)
        self.assertEqual(found, [("b1", 590), ("a1", 650), ("b2", 1190), ("a2", 1250)])

    def test_next_alone_holds_nobody_back(self) -> None:
        kit = {"rotas": [rota("a"), rota("b", alone=True)]}
        self.assertEqual(
            posts(kit, live(), self.moderator(590, "!timers next b"), until=610), [("b1", 590), ("a1", 600)]
        )

    def test_a_notice_sent_once_moves_nothing(self) -> None:
        engine = Engine({"rotas": [rota()]})
        engine.handle(live())
        act = desk(100, "send_notice", rota="r", notice={"text": "just this once"})
        self.assertEqual([e.text for e in of(engine.handle(act), "say")], ["just this once"])
        effects = of(engine.advance(at(601)), "say")
        self.assertEqual([(e.text, m) for e, m in zip(effects, moments(effects), strict=True)], [("r1", 600)])
        for bad in ({"text": "x", "command": "y"}, {}, {"text": "{{"}, {"text": "x", "platforms": ["lantern"]}):
            with self.subTest(bad), self.assertRaises((ActError, KitError)):
                engine.handle(desk(700, "send_notice", rota="r", notice=bad))


class Restarted(unittest.TestCase):
    @given(st.integers(1, 3000), st.integers(0, 9))
    @settings(max_examples=25, deadline=None)
    def test_clocks_places_rounds_and_lines_survive(self, when: int, seed: int) -> None:
        notices = [{"text": text} for text in "abcd"]
        kit = {"rotas": [rota("a", order="shuffled", notices=notices, chat_lines=7), rota("b", every="4m")]}
        events = [live(), *(says(31.0 * n, f"line {n}", f"p{n % 30}") for n in range(1, 110))]
        whole, first = Engine(kit, seed=seed), Engine(kit, seed=seed)
        expected = [e for event in events for e in of(whole.handle(event), "say")]
        got = [e for event in events if event.at <= at(when) for e in of(first.handle(event), "say")]
        got += of(first.advance(at(when)), "say")
        state = State()
        state.load(json.loads(json.dumps([row for row in first.state.take_changes() if row[2] is not None])))
        again = Engine(kit, seed=seed, state=state)
        again.resume(at(when))
        got += [e for event in events if event.at > at(when) for e in of(again.handle(event), "say")]
        self.assertEqual([(e.at, e.text) for e in got], [(e.at, e.text) for e in expected])


class LiveAndReplay(unittest.TestCase):
    @given(st.lists(st.integers(1, 3600), max_size=60), st.integers(0, 5))
    @settings(max_examples=25, deadline=None)
    def test_looking_at_the_clock_more_often_changes_nothing(self, looks: list[int], seed: int) -> None:
        """Live, time is looked at whenever something may be due; in a replay only with the next event."""
        kit = {
            "rotas": [
                rota("a", every="3m", chat_lines=4, order="shuffled"),
                rota("b", every="5m"),
                rota("c", alone=True),
            ]
        }
        events = [live(), *(says(47.0 * n, f"line {n}", f"p{n % 20}") for n in range(1, 70)), offline(3300)]
        replay, living = Engine(kit, seed=seed), Engine(kit, seed=seed)
        expected = [e for event in events for e in replay.handle(event)] + replay.advance(at(4000))
        got = []
        moments_of = sorted(
            [*((event.at, event) for event in events), *((at(look), None) for look in looks)], key=lambda m: m[0]
        )
        for moment, event in moments_of:
            got += living.advance(moment) if event is None else living.handle(event)
        got += living.advance(at(4000))
        self.assertEqual(got, expected)


class Nights(unittest.TestCase):
    def test_a_day_without_a_midnight_begins_with_the_jump(self) -> None:
        """In Beirut the clock went from 23:59 on 30 March 2024 to 01:00 on the 31st (22:00 UTC)."""
        jump = parse_moment("2024-03-30T22:00:00Z")
        self.assertEqual(midnight_after(date(2024, 3, 30), "Asia/Beirut"), jump)
        self.assertEqual(today(jump, "Asia/Beirut"), date(2024, 3, 31))
        self.assertEqual(today(jump - 1, "Asia/Beirut"), date(2024, 3, 30))

    @given(
        st.dates(date(2020, 1, 1), date(2030, 1, 1)),
        st.sampled_from(["Europe/Lisbon", "Asia/Beirut", "Pacific/Apia"]),
    )
    @settings(max_examples=60, deadline=None)
    def test_the_days_meet_without_a_gap(self, day: date, zone: str) -> None:
        end = midnight_after(day, zone)
        self.assertEqual((today(end - 1, zone), today(end, zone)), (day, day + timedelta(days=1)))
