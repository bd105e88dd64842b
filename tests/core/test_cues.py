"""Cues, and the built-ins that change settings or rotas from chat."""

from __future__ import annotations

import unittest
from collections.abc import Callable
from typing import Any

from gentlegate.core.commands.cues import CueEar
from gentlegate.core.engine import Engine
from gentlegate.core.errors import KitError
from gentlegate.core.kit.commands import Cue
from gentlegate.core.kit.load import load_kit
from tests.support.logs import at, live, moments, of, offline, run, said, says, whys
from tests.support.timing import ratio

MOD = ("odalys", "moderator")
LEAD = {"people": {"leads": ["brook:@odalys"]}}


def cues(*entries: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"cues": [{"cooldown": "none", **entry} for entry in entries], **more}


def cue(name: str = "tea", **fields: Any) -> dict[str, Any]:
    return {"name": name, "hears": ["tea time"], "reply": f"{name} heard"} | fields


class Hearing(unittest.TestCase):
    def answers(self, entry: dict[str, Any], text: str, login: str = "mossandloam") -> bool:
        return f"{entry['name']} heard" in said(run(cues(entry), live(), says(1, text, login)))

    def test_a_table_of_lines(self) -> None:
        words, exact = cue(), cue(match="exact")
        pattern = cue(match="pattern", hears=[r"\bwhen\s+is\s+tea\b"])
        login = cue(where="login", hears=["mossandloam"])
        name = cue(where="name", hears=["moss", "Mossandloam"], match="exact")
        for entry, text, heard in (
            (words, "Is it TEA  TIME yet?", True),
            (words, "it's téa time!", True),
            (words, "teatime", False),
            (words, "a plea time", False),
            (words, "tea times", False),
            (exact, "  Tea Time ", True),
            (exact, "tea time!", False),
            (pattern, "so when IS tea", True),
            (pattern, "whenis tea", False),
            (login, "anything at all", True),
            (name, "hello", True),
            (words, "!tea time", True),
            (words, "!uptime tea time", False),
        ):
            with self.subTest(text=text, match=entry.get("match")):
                self.assertEqual(self.answers(entry, text), heard)

    def test_the_first_in_the_list_answers_alone(self) -> None:
        kit = cues(cue("first", needs={"level": "moderator"}), cue("second"))
        effects = run(kit, live(), says(1, "tea time"))
        self.assertEqual((said(effects), whys(effects)), ([], ["level"]))
        self.assertEqual(of(effects, "refused")[0].cause.kind, "cue")
        self.assertEqual(said(run(kit, live(), says(1, "tea time", *MOD))), ["first heard"])

    def test_a_cue_of_another_platform_is_passed_over(self) -> None:
        kit = cues(cue("first", platforms=["lantern"]), cue("second"))
        self.assertEqual(said(run(kit, live(), says(1, "tea time"))), ["second heard"])

    def test_once_per_stream_for_each_person(self) -> None:
        kit = {"cues": [cue(where="login", hears=["mossandloam"], cooldown={"person": "stream"})]}
        effects = run(
            kit, live(), says(1, "hi"), says(2, "hi again"), offline(10), live(10 + 601), says(700, "hello")
        )
        self.assertEqual(moments(of(effects, "say")), [1, 700])

    def test_no_cue_for_what_was_removed(self) -> None:
        self.assertEqual(
            [e.cause.kind for e in of(run(cues(cue()), live(), says(1, "tea time bad.test")), "say")], ["filter"]
        )

    def test_cues_count_and_render(self) -> None:
        entry = cue(reply="{{ person.name }}: {{ counter.cups }}", counts=[{"counter": "cups", "by": 1}])
        kit = cues(entry, counters=[{"name": "cups"}])
        self.assertEqual(said(run(kit, live(), says(1, "tea time"))), ["Mossandloam: 1"])

    def test_a_bad_cue_is_refused_with_its_place(self) -> None:
        for entry, path in (
            (cue(match="pattern", hears=["ok", "a(b"]), "cues.0.hears.1"),
            (cue(reply="{{ oops"), "cues.0.reply.0"),
            (cue(counts=[{"counter": "none", "by": 1}]), "cues.0.counts.0.counter"),
            (cue(hears=[]), "cues.0.hears"),
        ):
            with self.subTest(path), self.assertRaises(KitError) as caught:
                load_kit({"cues": [entry]})
            self.assertEqual(caught.exception.path, path)

    def test_two_hundred_cues_cost_hardly_more_than_ten(self) -> None:
        def hearing(count: int) -> Callable[[], object]:
            made = [Cue(name=f"c{n}", hears=[f"word{n:x} other{n}", f"line{n}"], reply=["x"]) for n in range(count)]
            ear, lines = CueEar(made), [says(1, "the rim is so even, how many pulls was it")] * 1000
            return lambda: [ear.hear(line) for line in lines]

        self.assertLess(ratio(hearing(200), hearing(10), 1.6), 1.6)


class FromChat(unittest.TestCase):
    def test_teach_reword_and_forget(self) -> None:
        engine = Engine({})
        answers: list[str] = []
        for number, text in enumerate(
            (
                "!teach tea Kettle is on, {{ person.name }}",
                "!tea",
                "!teach TEA again",
                "!reword tea Pot is warm",
                "!tea",
                "!forget !tea",
                "!tea",
                "!forget tea",
                "!teach uptime mine",
                "!teach broken {{ oops",
                "!reword uptime x",
                "!teach",
            )
        ):
            answers += said(engine.handle(says(number * 20, text, *MOD)))
        self.assertEqual(
            answers[:6],
            [
                '!tea now says "Kettle is on, {{ person.name }}".',
                "Kettle is on, Odalys",
                "!TEA is a command already. To change what it says, write !reword TEA and the new reply.",
                '!tea now says "Pot is warm". Before: "Kettle is on, {{ person.name }}".',
                "Pot is warm",
                '!tea is gone. It said "Pot is warm".',
            ],
        )
        self.assertIn("There is no !tea", answers[6])
        self.assertIn("!uptime is built in already", answers[7])
        self.assertIn("line 1, column", answers[8])
        self.assertIn("built in; it can be changed", answers[9])
        self.assertEqual(engine.document, {"commands": []})

    def test_only_moderators_teach_and_the_change_is_told(self) -> None:
        effects = run({}, says(1, "!teach tea x"), says(20, "!teach tea x", *MOD))
        self.assertEqual(whys(effects), ["level"])
        (changed,) = of(effects, "setting")
        self.assertEqual((changed.path, changed.before, changed.by), ("commands.tea", None, "brook:u-odalys"))
        self.assertEqual(changed.cause.name, "teach")

    def test_what_a_rota_says_is_not_forgotten(self) -> None:
        kit = {
            "commands": [{"name": "tea", "reply": "x"}],
            "rotas": [{"name": "Round", "notices": [{"command": "tea"}]}],
        }
        self.assertIn("is a notice of Round", said(run(kit, says(1, "!forget tea", *MOD)))[0])

    def test_mood_for_good_and_for_tonight(self) -> None:
        engine = Engine(LEAD)
        engine.handle(live())
        (words,) = said(engine.handle(says(1, "!mood Library tonight", *MOD)))
        self.assertEqual(words, "The mood is Library now until the stream ends. Before: Parlour.")
        engine.handle(offline(10))
        engine.advance(at(1000))
        self.assertEqual(engine.parts.kit.channel.mood, "parlour")
        engine.handle(says(2000, "!mood party", *MOD))
        self.assertEqual(engine.document["channel"]["mood"], "party")
        self.assertEqual(whys(run({}, says(1, "!mood party", *MOD))), ["level"])

    def test_why_tells_the_moderator_alone(self) -> None:
        effects = run(
            {},
            live(),
            says(1, "hi", "saltglaze"),
            says(20, "see bad.test", "saltglaze"),
            says(80, "!why SaltGlaze", *MOD),
            says(120, "!why quillwort", *MOD),
        )
        answer = of(effects, "say")[-2]
        self.assertEqual(answer.private_to, "brook:u-odalys")
        self.assertEqual(answer.text, 'Saltglaze was nudged 1 min ago for links ("bad.test"). Strikes now: 1.')
        self.assertIn("Nobody named", said(effects)[-1])

    def test_following(self) -> None:
        self.assertEqual(said(run({}, says(1, "!following"))), ["Mossandloam does not follow."])


class TimersFromChat(unittest.TestCase):
    KIT = {
        "rotas": [
            {"name": "Round", "every": "10m", "chat_lines": 0, "notices": [{"text": "one"}, {"text": "two"}]},
            {"name": "Slow", "every": "30m", "chat_lines": 0, "notices": [{"text": "slow"}]},
        ]
    }

    def posts(self, *events: Any, until: float = 3000) -> list[tuple[str, float]]:
        effects = [e for e in of(run(self.KIT, *events, until=until), "say") if e.cause.kind == "notice"]
        return [(e.text, when) for e, when in zip(effects, moments(effects), strict=True)]

    def test_off_holds_until_on_and_then_waits_for_the_spacing(self) -> None:
        self.assertEqual(
            self.posts(live(), says(5, "!timers off Round", *MOD), says(1300, "!timers on round", *MOD)),
            [("one", 1360), ("slow", 1800), ("two", 1960), ("one", 2560)],
        )

    def test_off_holds_beyond_the_stream(self) -> None:
        self.assertEqual(self.posts(live(), says(5, "!timers off", *MOD), offline(100), live(1000), until=5000), [])

    def test_next_posts_now_and_restarts_the_clock(self) -> None:
        self.assertEqual(
            self.posts(live(), says(100, "!timers next", *MOD), until=800), [("one", 100), ("two", 700)]
        )

    def test_refusals(self) -> None:
        events = (
            says(1, "!timers next", *MOD),
            live(2),
            says(30, "!timers off", *MOD),
            says(60, "!timers next Round", *MOD),
        )
        self.assertEqual(whys(run(self.KIT, *events)), ["offline", "disabled"])
        self.assertEqual(whys(run(self.KIT, says(1, "!timers soon", *MOD))), ["arguments"])
        answer = said(run(self.KIT, says(1, "!timers off nothing", *MOD)))
        self.assertEqual(answer, ['No rota is named "nothing". Rotas: Round, Slow.'])


if __name__ == "__main__":
    unittest.main()
