"""The forecast: the same posts as the scheduler makes when the lines really come, and its remarks."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.kit.load import load_kit
from gentlegate.core.moments import MINUTE
from gentlegate.core.platforms import Abilities
from gentlegate.core.rotas.forecast import Post, from_now, of_recorded
from gentlegate.core.rotas.pace import PIECE, Pace, usual
from gentlegate.core.rotas.remarks import remarks
from gentlegate.core.state import State
from tests.support.logs import BEGIN, at, live, moments, of, offline, says

HOUR = 60 * MINUTE
BROOK = {"brook": Abilities()}
ALL_THERE = {"brook": 1.0}

rotas_of = st.lists(
    st.fixed_dictionaries(
        {
            "every": st.sampled_from(["1m", "3m", "7m", "20m"]),
            "chat_lines": st.integers(0, 30),
            "alone": st.booleans(),
            "order": st.sampled_from(["in turn", "shuffled"]),
            "notices": st.lists(st.sampled_from("abc"), min_size=1, max_size=4),
        }
    ),
    min_size=1,
    max_size=4,
)
rates = st.lists(st.sampled_from([0.0, 0.3, 1.0, 4.5, 12.0]), min_size=1, max_size=6)


def kit_of(rotas: list[dict[str, Any]], spacing: str = "60s") -> dict[str, Any]:
    made = [
        rota | {"name": f"r{place}", "notices": [{"text": text} for text in rota["notices"]]}
        for place, rota in enumerate(rotas)
    ]
    return {"channel": {"spacing": spacing}, "rotas": made}


def ahead(document: dict[str, Any], pace: Pace, hours: float = 2, **more: Any) -> list[Post]:
    kit = load_kit(document)
    return from_now(kit, BROOK, State(), 7, BEGIN, BEGIN + round(hours * HOUR), pace, ALL_THERE, **more)


def times(posts: list[Post]) -> list[tuple[str, float]]:
    return [(post.rota, (post.at - BEGIN) / 1e6) for post in posts]


class Law(unittest.TestCase):
    @given(rotas_of, rates, st.sampled_from(["0s", "60s", "150s"]))
    @settings(max_examples=60, deadline=None)
    def test_it_is_what_the_engine_does_when_the_lines_come(
        self, rotas: list[dict[str, Any]], rates: list[float], spacing: str
    ) -> None:
        document, pace, until = kit_of(rotas, spacing), Pace.of(rates), HOUR
        engine = Engine(document, seed=7)
        said = of(engine.handle(live()), "say")
        number, offset = 1, pace.offset(1)
        while offset is not None and offset <= until:
            said += of(engine.handle(says(offset / 1e6, f"line {number}", f"p{number % 40}")), "say")
            number += 1
            offset = pace.offset(number)
        said += of(engine.advance(BEGIN + until), "say")
        expected = [(effect.cause.name, when) for effect, when in zip(said, moments(said), strict=True)]
        self.assertEqual(times(ahead(document, pace, 1)), expected)

    @given(rates, st.integers(0, 3 * HOUR))
    def test_a_pace_counts_and_finds_the_same(self, rates: list[float], offset: int) -> None:
        pace = Pace.of(rates)
        came = int(pace.lines(offset))
        found = pace.offset(came)
        assert found is not None
        self.assertLessEqual(found, offset)
        self.assertGreaterEqual(pace.lines(found), came)
        if came:
            self.assertLess(pace.lines(found - 2), came)


class FromNow(unittest.TestCase):
    def test_it_goes_on_from_where_the_clocks_stand_and_touches_nothing(self) -> None:
        document = kit_of([{"every": "10m", "chat_lines": 0, "notices": ["a", "b"]}])
        engine = Engine(document)
        engine.handle(live())
        engine.advance(at(700))
        before = engine.state.rotas.get("r0")
        kit = engine.parts.kit
        posts = from_now(kit, BROOK, engine.state, 0, at(700), at(2000), Pace.of([5]), ALL_THERE)
        self.assertEqual([(post.at, post.notice) for post in posts], [(at(1200), 1), (at(1800), 0)])
        self.assertEqual(engine.state.rotas.get("r0"), before)
        self.assertEqual(moments(of(engine.advance(at(1900)), "say")), [1200, 1800])

    def test_a_change_is_foreseen_by_rule_9(self) -> None:
        slow, quick = (kit_of([{"every": e, "chat_lines": 0, "notices": ["a"]}]) for e in ("30m", "5m"))
        engine = Engine(slow)
        engine.handle(live())
        engine.advance(at(1900))
        shown = (engine.state, 0, at(2300), at(2800), Pace.of([5]), ALL_THERE)
        posts = from_now(load_kit(quick), BROOK, *shown, before=engine.parts.kit)
        self.assertEqual([post.at for post in posts], [at(2360), at(2660)])

    def test_paused_off_and_other_platforms_do_not_post(self) -> None:
        every = {"every": "5m", "chat_lines": 0, "notices": ["a"]}
        document = kit_of([every, every | {"on": False}, every | {"platforms": ["lantern"]}])
        self.assertEqual({post.rota for post in ahead(document, Pace.of([5]))}, {"r0"})

    def test_lines_on_a_platform_of_its_own(self) -> None:
        rota = {"every": "1m", "chat_lines": 10, "platforms": ["plaza"], "notices": ["a"]}
        kit = load_kit(kit_of([rota]))
        both = {"brook": Abilities(), "plaza": Abilities()}
        shares = {"brook": 0.8, "plaza": 0.2}
        posts = from_now(kit, both, State(), 0, BEGIN, BEGIN + HOUR, Pace.of([10.0]), shares)
        self.assertEqual(times(posts)[:2], [("r0", 300.0), ("r0", 600.0)])


class Recorded(unittest.TestCase):
    def test_over_a_recorded_stream_it_posts_as_it_did(self) -> None:
        document = kit_of([{"every": "4m", "chat_lines": 3, "order": "shuffled", "notices": ["a", "b", "c"]}] * 2)
        events = [live(), *(says(20.0 * n, f"line {n}", f"p{n}") for n in range(100)), offline(2000), live(2100)]
        engine = Engine(document, seed=3)
        said = [effect for event in events for effect in of(engine.handle(event), "say")]
        course = [
            (event.at, event.platform if event.__class__.__name__ == "Message" else event) for event in events
        ]
        posts = of_recorded(load_kit(document), BROOK, 3, course)  # type: ignore[arg-type]
        self.assertGreater(len(said), 5)
        self.assertEqual([post.at for post in posts], [effect.at for effect in said])
        texts = {"r0": "abc", "r1": "abc"}
        self.assertEqual([texts[post.rota][post.notice] for post in posts], [effect.text for effect in said])


class UsualPace(unittest.TestCase):
    def test_the_mean_of_the_streams_that_lasted_so_long(self) -> None:
        short, long = [0] * 10, [0] * 20 + [PIECE + 1] * 5
        pace = usual([short, long])
        assert pace is not None
        self.assertEqual(pace.rates, (3.0, 1.0))
        self.assertIsNone(usual([]))

    def test_no_pace_below_nothing(self) -> None:
        for bad in ([], [-1.0], [float("nan")], [float("inf")]):
            with self.assertRaises(ValueError):
                Pace.of(bad)


class Remarks(unittest.TestCase):
    def found(self, document: dict[str, Any], rate: float) -> list[tuple[str, str | None]]:
        kit, pace = load_kit(document), Pace.of([rate])
        posts = ahead(document, pace, 3)
        return [(one.what, one.rota) for one in remarks(kit, posts, pace, 0, 3 * HOUR)]

    def test_who_will_not_post_and_why(self) -> None:
        usual = {"every": "20m", "chat_lines": 5, "notices": ["a"]}
        self.assertEqual(self.found(kit_of([usual]), 10), [])
        self.assertEqual(self.found(kit_of([usual | {"chat_lines": 54}]), 0.2), [("no lines", "r0")])
        self.assertEqual(self.found(kit_of([usual | {"notices": []}]), 10), [("nothing to say", "r0")])
        self.assertEqual(
            self.found(kit_of([usual | {"every": "1m"}], "90s"), 100), [("shorter than spacing", "r0")]
        )
        self.assertEqual(self.found(kit_of([usual | {"on": False}]), 10), [])
        dated = kit_of([usual])
        dated["rotas"][0]["notices"] = [{"text": "later", "from": "2031-01-01"}]
        self.assertEqual(self.found(dated, 10), [("nothing to say", "r0")])

    def test_how_much_of_the_chat_it_would_be(self) -> None:
        document = kit_of([{"every": "4m", "chat_lines": 0, "notices": ["a"]}])
        kit, pace = load_kit(document), Pace.of([1.25])
        (many,) = remarks(kit, ahead(document, pace, 3), pace, 0, 3 * HOUR)
        self.assertEqual((many.what, many.values["an_hour"], many.values["one_in"]), ("many", 15, 6))

    def test_the_rate_under_which_nothing_comes(self) -> None:
        document = kit_of([{"every": "20m", "chat_lines": 54, "notices": ["a"]}])
        kit, pace = load_kit(document), Pace.of([0.2])
        (few,) = remarks(kit, ahead(document, pace, 3), pace, 0, 3 * HOUR)
        self.assertEqual(few.values["under"], 0.3)
