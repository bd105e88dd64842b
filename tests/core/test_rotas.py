from __future__ import annotations

import itertools
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
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
