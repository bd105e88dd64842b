from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError
from tests.support.logs import desk, live, of, run, said, says

SHOUT = "LOOK AT IT GO OH NO IT IS LEANING AGAIN SOMEBODY HOLD IT"


def verdict(kit: dict[str, Any], text: str, *badges: str, **more: Any) -> Any:
    (found,) = of(run(kit, live(), says(1, text, "viewer", *badges, **more), every_verdict=True), "verdict")
    return found


def filters(**settings: Any) -> dict[str, Any]:
    """Settings of these filters alone; that the writer is new here is left to its own tests."""
    return {"filters": {"newcomers": {"on": False}} | settings}


class Capitals(unittest.TestCase):
    def test_the_share_is_reached_at_the_limit(self) -> None:
        kit = filters(capitals={"share": 0.8, "letters": 10})
        self.assertEqual(verdict(kit, "AAAAAAAAbb").outcome, "nudge")
        self.assertEqual(verdict(kit, "AAAAAAAbbb").outcome, "allow")
        self.assertEqual(verdict(kit, "AAAAAAAAA").outcome, "allow")

    def test_what_is_left_out(self) -> None:
        kit = filters(capitals={"share": 0.8, "letters": 10}, links={"on": False})
        for text, more in (
            ("POTTERYTIME hello", {"emotes": ((0, 11),)}),
            ("@MOSSANDLOAMX hi there", {}),
            ("HTTPS://KILN.EXAMPLE/SHOP hi", {}),
        ):
            with self.subTest(text):
                self.assertEqual(verdict(kit, text, **more).outcome, "allow")

    def test_a_known_commands_name_is_not_measured(self) -> None:
        kit = filters(capitals={"share": 0.8, "letters": 10}) | {
            "commands": [{"name": "showmethepots", "reply": "x"}]
        }
        self.assertEqual(verdict(kit, "!SHOWMETHEPOTS please").outcome, "allow")
        self.assertEqual(verdict(kit, "!UNKNOWNCOMMAND").outcome, "nudge")

    def test_measure_limit_and_span(self) -> None:
        found = verdict({}, f"  {SHOUT} 12")
        (reason,) = found.reasons
        self.assertEqual((reason.measured, reason.limit, reason.text), (1.0, 0.8, SHOUT))
        self.assertEqual(reason.span, (2, 2 + len(SHOUT)))

    def test_moods_set_the_limit(self) -> None:
        line = "A LINE OF FORTY SEVEN CAPITAL LETTERS OR SO I BET YES"
        for mood, outcome in {"party": "allow", "parlour": "nudge", "library": "nudge"}.items():
            with self.subTest(mood):
                self.assertEqual(verdict({"channel": {"mood": mood}}, line).outcome, outcome)

    def test_a_channels_own_value_stays_over_moods(self) -> None:
        kit = filters(capitals={"letters": 500}) | {"channel": {"mood": "library"}}
        self.assertEqual(verdict(kit, SHOUT).outcome, "allow")


class Links(unittest.TestCase):
    def test_a_link_is_nudged_and_said_why(self) -> None:
        effects = run({}, live(), says(1, "see bad.test", id="x"))
        self.assertEqual([e.effect for e in effects], ["verdict", "remove", "say"])
        self.assertEqual(effects[0].filter, "links")  # type: ignore[attr-defined]
        self.assertIn("Mossandloam", said(effects)[0])

    def test_lists(self) -> None:
        kit = filters(
            links={
                "allowed": ["kiln.example"],
                "forbidden": ["kiln.example/bad", {"text": "worse.test", "step": "ban"}],
            }
        )
        for text, outcome, seconds in (
            ("kiln.example/shop", "allow", None),
            ("kiln.example/bad/x", "timeout", 600),
            ("worse.test", "ban", None),
            ("other.test", "nudge", None),
            ("https://kiln.example@other.test/", "nudge", None),
        ):
            with self.subTest(text):
                found = verdict(kit, text)
                self.assertEqual((found.outcome, found.seconds), (outcome, seconds))

    def test_exemptions(self) -> None:
        kit = filters(
            links={"exempt_from": "subscriber", "exempt_people": ["brook:@viewer"], "forbidden": ["worse.test"]}
        )
        self.assertEqual(verdict(kit, "a.test", "subscriber").exempt[0].by, "level")
        self.assertEqual(verdict(kit, "a.test").exempt[0].by, "person")
        self.assertEqual(verdict(kit, "worse.test", "vip").outcome, "timeout")
        self.assertEqual(verdict(kit, "worse.test", "moderator").outcome, "allow")
        self.assertEqual(verdict(kit, "worse.test", "broadcaster").reasons, ())

    def test_never_judged(self) -> None:
        kit = {"people": {"ignored": ["brook:@viewer"]}}
        self.assertEqual(verdict(kit, "bad.test").outcome, "allow")
        own = {"channel": {"gatekeeper": ["brook:@viewer"]}}
        self.assertEqual(run(own, says(1, "!uptime bad.test", "viewer")), [])
        self.assertEqual(verdict(own, "bad.test").outcome, "allow")

    def test_where_and_when(self) -> None:
        self.assertEqual(verdict(filters(links={"platforms": ["lantern"]}), "bad.test").outcome, "allow")
        self.assertEqual(verdict(filters(links={"when": "offline"}), "bad.test").outcome, "allow")
        self.assertEqual(verdict(filters(links={"when": "live"}), "bad.test").outcome, "nudge")


class Ladder(unittest.TestCase):
    def outcomes(self, *times: float, kit: dict[str, Any] | None = None) -> list[tuple[str, Any, int]]:
        events = [says(when, "bad.test", "viewer") for when in times]
        return [(v.outcome, v.seconds, v.strikes) for v in of(run(kit or {}, live(), *events), "verdict")]

    def test_strikes_climb(self) -> None:
        self.assertEqual(
            self.outcomes(0, 10, 20, 30, 40),
            [
                ("nudge", None, 1),
                ("timeout", 60, 2),
                ("timeout", 600, 3),
                ("timeout", 600, 4),
                ("timeout", 86400, 5),
            ],
        )

    def test_a_burst_does_not_climb(self) -> None:
        self.assertEqual(
            self.outcomes(0, 1, 4.999, 5),
            [("nudge", None, 1), ("remove", None, 1), ("remove", None, 1), ("timeout", 60, 2)],
        )

    def test_a_strike_exactly_memory_old_has_expired(self) -> None:
        kit = {"ladder": {"memory": "1h"}}
        self.assertEqual(self.outcomes(0, 3600, kit=kit)[1], ("nudge", None, 1))
        self.assertEqual(self.outcomes(0, 3599.9, kit=kit)[1], ("timeout", 60, 2))

    def test_a_fixed_step_is_used_as_it_is_and_adds_strikes(self) -> None:
        kit = filters(links={"step": "remove", "strikes": 2})
        self.assertEqual(
            self.outcomes(0, 1, 10, kit=kit), [("remove", None, 2), ("remove", None, 2), ("remove", None, 4)]
        )

    def test_no_strikes_and_no_step_is_only_noted(self) -> None:
        found = verdict(filters(links={"strikes": 0}), "bad.test")
        self.assertEqual((found.outcome, found.filter, len(found.reasons)), ("allow", None, 1))

    def test_the_most_severe_step_wins_and_equal_ones_go_by_the_table(self) -> None:
        text = f"{SHOUT} bad.test"
        self.assertEqual(verdict({}, text).filter, "capitals")
        self.assertEqual(verdict(filters(links={"step": "ban"}), text).filter, "links")

    def test_a_sentence_at_most_once_in_ten_seconds_per_platform(self) -> None:
        events = [says(when, "bad.test", f"viewer{when}") for when in (0, 9.9, 10)]
        events.append(says(10, "bad.test", "other", platform="lantern"))
        self.assertEqual([e.at for e in of(run({}, *events), "say")], [events[0].at, events[2].at, events[3].at])

    def test_timeouts_are_clamped_and_say_so(self) -> None:
        kit = filters(links={"step": "timeout", "seconds": 90}) | {
            "platforms": {"brook": {"timeout": [15, 60, 360]}}
        }
        (timeout,) = of(run(kit, says(0, "bad.test")), "timeout")
        self.assertEqual((timeout.seconds, timeout.asked), (360, 90))

    def test_linked_people_share_strikes_and_timeouts(self) -> None:
        kit = {"people": {"linked": [["brook:u-a", "lantern:@b"]]}}
        effects = run(kit, says(0, "bad.test", "a"), says(10, "bad.test", "b", platform="lantern"))
        self.assertEqual(
            [(t.platform, t.person) for t in of(effects, "timeout")],
            [("lantern", "lantern:u-b"), ("brook", "brook:u-a")],
        )

    def test_what_a_platform_cannot_do_is_refused_not_silent(self) -> None:
        effects = run({"platforms": {"brook": {"removal": False}}}, says(0, "bad.test"))
        self.assertEqual([e.why for e in of(effects, "refused")], ["unsupported"])

    @given(st.lists(st.integers(0, 40_000), min_size=1, max_size=12))
    @settings(max_examples=60, deadline=None)
    def test_strikes_follow_a_naive_model(self, gaps: list[int]) -> None:
        now, last, model, times = 0, None, [], []
        for gap in gaps:
            now += gap
            times.append(now)
            if last is None or now - last >= 5:
                model.append(now)
                last = now
        expected_last = sum(1 for strike in model if now - strike < 6 * 3600)
        self.assertEqual(self.outcomes(*times)[-1][2], expected_last)


class Undo(unittest.TestCase):
    def test_undo_lifts_restores_and_gives_strikes_back(self) -> None:
        kit = {"platforms": {"brook": {"restore": False}, "lantern": {}}}
        engine = Engine(kit)
        engine.handle(says(0, "bad.test", "a", platform="lantern", id="l1"))
        engine.handle(says(10, "bad.test", "a", platform="lantern", id="l2"))
        effects = engine.handle(desk(20, "undo", platform="lantern", message="l2"))
        self.assertEqual([e.effect for e in effects], ["undone", "restore", "unban"])
        self.assertEqual(effects[0].strikes, 1)  # type: ignore[attr-defined]
        with self.assertRaises(ActError):
            engine.handle(desk(21, "undo", platform="lantern", message="l2"))

    def test_what_cannot_be_put_back_is_said(self) -> None:
        kit = {"platforms": {"brook": {"restore": False}}}
        effects = run(kit, says(0, "bad.test", id="b1"), desk(1, "undo", platform="brook", message="b1"))
        (undone,) = of(effects, "undone")
        self.assertEqual((undone.kept, of(effects, "restore")), (("removal",), []))
        again = run(
            kit, says(0, "bad.test", id="b1"), desk(1, "undo", platform="brook", message="b1"), says(2, "bad.test")
        )
        self.assertEqual(of(again, "verdict")[-1].outcome, "nudge")

    def test_acts_by_hand_are_carried_out_and_undone_like_verdicts(self) -> None:
        kit = {
            "people": {"linked": [["brook:u-a", "lantern:@b"]]},
            "platforms": {"lantern": {"timeout": [60, 360]}},
        }
        engine = Engine(kit)
        engine.handle(says(0, "grumble", "a", id="b1"))
        who = {"platform": "brook", "message": "b1", "person": "brook:u-a", "login": "a"}
        removed = engine.handle(desk(1, "remove", **who))
        self.assertEqual([(e.effect, e.by) for e in removed], [("remove", "brook:u-odalys")])  # type: ignore[attr-defined]
        with self.assertRaisesRegex(ActError, "has dealt with this line already"):
            engine.handle(desk(2, "remove", by="brook:u-bram", **who))
        timed = engine.handle(desk(3, "timeout", **who, seconds=90))
        self.assertEqual(
            [(t.person, t.seconds) for t in of(timed, "timeout")], [("brook:u-a", 90), ("lantern:@b", 360)]
        )
        undone = engine.handle(desk(4, "undo", platform="brook", message="b1"))
        self.assertEqual([e.effect for e in undone], ["undone", "restore", "unban", "unban"])
        self.assertEqual(
            [e.effect for e in engine.handle(desk(5, "undo", platform="brook", message="b1"))],
            ["undone", "restore"],
        )

    def test_acts_by_hand_that_lack_something(self) -> None:
        who = {"platform": "brook", "message": "b1", "person": "brook:u-a"}
        for values in (
            who | {"person": ""},
            who | {"message": ""},
            who,
            who | {"seconds": 0},
            who | {"seconds": "60"},
        ):
            with self.subTest(values), self.assertRaises(ActError):
                run({}, desk(1, "timeout", **values))

    def test_nothing_to_undo_is_an_error(self) -> None:
        with self.assertRaises(ActError):
            run({}, desk(1, "undo", platform="brook", message="none"))
