from __future__ import annotations

import random
import unittest
from collections.abc import Callable
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.commands.replies import parts as split
from gentlegate.core.commands.templates import render
from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, TemplateProblem
from tests.support.logs import desk, live, of, offline, run, said, says, whys
from tests.support.timing import ratio

KILN: dict[str, Any] = {"name": "kiln", "aliases": ["Temperature"], "reply": "hot", "cooldown": "none"}


def kit(**fields: Any) -> dict[str, Any]:
    return {"commands": [KILN | fields]}


class Hearing(unittest.TestCase):
    def heard(self, text: str, reply_to: str | None = None, **channel: Any) -> bool:
        settings = kit() | {"channel": channel, "filters": {"links": {"on": False}}}
        return said(run(settings, says(0, text, reply_to=reply_to))) == ["hot"]

    def test_lines_that_are_the_command(self) -> None:
        for text in (
            "!kiln",
            "!KILN",
            "!kiln please",
            "!kiln\tx",
            "！ｋｉｌｎ",
            "!ki\u200bln",
            "\u200b!kiln",
            "!temperature",
            "!TEMPERATURE now",
        ):
            with self.subTest(text):
                self.assertTrue(self.heard(text))

    def test_lines_that_are_not(self) -> None:
        for text in ("kiln", "! kiln", "!kilns", "x !kiln", "!kiln!", "?kiln", "!", "", "@sam !kiln", " !kiln"):
            with self.subTest(text):
                self.assertFalse(self.heard(text))

    def test_after_the_mention_of_whom_one_replies_to(self) -> None:
        self.assertTrue(self.heard("@sam !kiln", reply_to="m1"))

    def test_another_prefix(self) -> None:
        self.assertTrue(self.heard("kiln: kiln" if False else "++kiln", prefix="++"))
        self.assertFalse(self.heard("!kiln", prefix="++"))

    def test_not_after_a_removal_nor_from_bots(self) -> None:
        self.assertEqual(said(run(kit(), says(0, "!kiln bad.test", "viewer")))[0].count("hot"), 0)
        bots = kit() | {"people": {"ignored": ["brook:u-mossandloam"]}}
        self.assertEqual(run(bots, says(0, "!kiln")), [])


class Checks(unittest.TestCase):
    def test_the_first_check_that_fails_is_the_why(self) -> None:
        for fields, why in (
            ({"on": False, "when": "live"}, "disabled"),
            ({"when": "live", "needs": {"level": "vip"}}, "offline"),
            ({"needs": {"level": "vip"}}, "level"),
            ({"needs": {"never": ["brook:@mossandloam"]}}, "person"),
        ):
            with self.subTest(why):
                self.assertEqual(whys(run(kit(**fields), says(0, "!kiln"))), [why])

    def test_offline_commands_find_the_stream_live(self) -> None:
        self.assertEqual(whys(run(kit(when="offline"), live(), says(1, "!kiln"))), ["live"])
        self.assertEqual(whys(run(kit(when="live"), live(), offline(5), says(9, "!kiln"))), ["offline"])

    def test_a_command_not_heard_here_is_silent(self) -> None:
        self.assertEqual(run(kit(platforms=["lantern"]), says(0, "!kiln")), [])

    def test_people_are_allowed_never_is_not_and_the_broadcaster_may_all(self) -> None:
        needs = {"level": "lead", "people": ["brook:@mossandloam", "brook:@x"], "never": ["brook:@x"]}
        self.assertEqual(said(run(kit(needs=needs), says(0, "!kiln"))), ["hot"])
        self.assertEqual(whys(run(kit(needs=needs), says(0, "!kiln", "x"))), ["person"])
        self.assertEqual(said(run(kit(needs=needs), says(0, "!kiln", "x", "broadcaster"))), ["hot"])

    def test_levels(self) -> None:
        people = {"regulars": ["brook:@r"], "leads": ["brook:@l"]}
        order = (
            ("r", ()),
            ("s", ("subscriber",)),
            ("v", ("vip",)),
            ("m", ("moderator",)),
            ("l", ()),
            ("b", ("broadcaster",)),
        )
        levels = ("regular", "subscriber", "vip", "moderator", "lead", "broadcaster")
        for needed, level in enumerate(levels):
            for held, (login, badges) in enumerate(order):
                with self.subTest(level=level, login=login):
                    settings = kit(needs={"level": level}) | {"people": people}
                    self.assertEqual(bool(said(run(settings, says(0, "!kiln", login, *badges)))), held >= needed)


class Cooldowns(unittest.TestCase):
    def test_refused_until_exactly_the_moment(self) -> None:
        effects = run(
            kit(cooldown={"everyone": "5s"}), says(0, "!kiln"), says(4.999, "!kiln", "b"), says(5, "!kiln", "c")
        )
        self.assertEqual(len(said(effects)), 2)
        (refused,) = of(effects, "refused")
        self.assertEqual((refused.why, refused.wait, refused.command), ("cooldown", 0.001, "kiln"))

    def test_the_longer_wait_is_said(self) -> None:
        cooldown = {"everyone": "5s", "person": "1m"}
        effects = run(kit(cooldown=cooldown), says(0, "!kiln"), says(2, "!temperature"), says(2, "!kiln", "b"))
        self.assertEqual([r.wait for r in of(effects, "refused")], [58, 3])

    def test_default_and_skipping(self) -> None:
        settings = kit(cooldown="default") | {"channel": {"cooldown": {"everyone": "10s", "skip_from": "vip"}}}
        effects = run(
            settings,
            says(0, "!kiln", "v", "vip"),
            says(1, "!kiln", "v", "vip"),
            says(9, "!kiln"),
            says(11, "!kiln"),
        )
        self.assertEqual(len(said(effects)), 3)
        self.assertEqual([r.wait for r in of(effects, "refused")], [2])

    def test_once_per_stream(self) -> None:
        settings = kit(cooldown={"person": "stream"})
        effects = run(
            settings,
            live(),
            says(1, "!kiln"),
            says(2, "!kiln"),
            offline(10),
            says(11, "!kiln"),
            live(900),
            says(901, "!kiln"),
        )
        self.assertEqual(len(said(effects)), 2)
        self.assertEqual([r.wait for r in of(effects, "refused")], [None, None])

    def test_linked_people_and_platforms_share(self) -> None:
        settings = kit(cooldown={"person": "1m"}) | {"people": {"linked": [["brook:u-a", "lantern:@b"]]}}
        effects = run(settings, says(0, "!kiln", "a"), says(1, "!kiln", "b", platform="lantern"))
        self.assertEqual(whys(effects), ["cooldown"])

    @given(
        st.lists(st.tuples(st.integers(0, 4000), st.sampled_from("abc"), st.booleans()), max_size=25),
        st.integers(0, 6),
        st.integers(0, 9),
    )
    @settings(max_examples=120, deadline=None)
    def test_against_a_naive_model(self, uses: list[tuple[int, str, bool]], everyone: int, each: int) -> None:
        now, accepted, events, expected = 0, [], [], []
        for gap, who, skips in uses:
            now += gap
            badge = ("moderator",) if skips else ()
            events.append(says(now / 1000, "!kiln", f"{who}{skips}", *badge))
            held = any(
                now < at + everyone * 1000 or (by == (who, skips) and now < at + each * 1000) for at, by in accepted
            )
            if skips or not held:
                accepted.append((now, (who, skips)))
            expected.append(skips or not held)
        cooldown = {"everyone": everyone, "person": each}
        effects = run(kit(cooldown=cooldown) | {"filters": {"pace": {"on": False}}}, *events)
        got = [e.effect == "say" for e in effects if e.effect in ("say", "refused")]
        self.assertEqual(got, expected)


class Replies(unittest.TestCase):
    def test_templates(self) -> None:
        for reply, text in (
            ("{{ person.name }} {{ person.level }} on {{ person.platform }}", "Mossandloam everyone on brook"),
            ("{{ args }}|{{ arg[1] }}", "two mugs|mugs"),
            ("{{ uses | ordinal }}", "1st"),
            ("{{ counter.lost | plus: 2 }} {{ counter['pots lost'] }}", "2 "),
            ("{{ 3700 | duration }}", "1 h 1 min"),
            ("{{ now | time }}", "18:00"),
            ("{{ 'a,a' | split: ',' | pick }}{{ 1 | roll }}", "a1"),
            ("{% if stream.live %}on{% else %}off{% endif %}", "off"),
            ("{{ missing.thing }}ok", "ok"),
        ):
            with self.subTest(reply):
                settings = kit(reply=reply) | {"counters": [{"name": "lost"}]}
                self.assertEqual(said(run(settings, says(0, "!kiln two mugs"))), [text.strip()])

    def test_the_first_word_is_looked_up(self) -> None:
        channel = {
            "login": "wickerworks",
            "name": "Wicker Works",
            "link": "https://wicker.example",
            "category": "Baskets",
        }
        reply = "{{ target.name }}|{{ target.login }}|{{ target.link }}|{{ target.category }}|{{ target.known }}"
        settings = kit(reply=reply) | {"platforms": {"brook": {"channels": [channel]}}}
        for typed, text in (
            ("@WickerWorks hello", "Wicker Works|wickerworks|https://wicker.example|Baskets|true"),
            ("Thimblewick", "Thimblewick|thimblewick|||true"),
            ("Nobody_Here", "Nobody_Here|nobody_here|||false"),
            ("", "||||false"),
        ):
            with self.subTest(typed):
                effects = run(settings, says(0, "hi", "thimblewick"), says(1, f"!kiln {typed}"))
                self.assertEqual(said(effects), [text])

    def test_how_many_watch(self) -> None:
        effects = run(kit(reply="{{ stream.viewers }}"), live(viewers=31), says(1, "!kiln"))
        self.assertEqual(said(effects), ["31"])

    def test_what_viewers_type_is_no_template(self) -> None:
        self.assertEqual(
            said(run(kit(reply="{{ args }}"), says(0, "!kiln {{ person.name }}"))), ["{{ person.name }}"]
        )

    def test_hostile_templates_say_nothing_and_warn(self) -> None:
        for reply in (
            "{% for i in (1..300000000) %}x{% endfor %}",
            "{{ (1..300000000) | join }}",
            "{% assign a = 'aaaaaaaaaa' %}{% for i in (1..400) %}{% assign a = a | append: a %}{% endfor %}{{ a }}",
            "{{ 1 | divided_by: 0 }}",
            "{% for i in (1..100) %}{% for j in (1..100) %}{% for k in (1..100) %}x{% endfor %}{% endfor %}{% endfor %}",
        ):
            with self.subTest(reply):
                effects = run(kit(reply=reply), says(0, "!kiln"))
                self.assertEqual([e.effect for e in effects], ["warning"])

    def test_several_replies_in_turn(self) -> None:
        effects = run(kit(reply=["a", "b"]), *(says(when, "!kiln") for when in range(3)))
        self.assertEqual(said(effects), ["a", "b", "a"])

    def test_modes_fall_back(self) -> None:
        bare = {"brook": {"private": False, "threads": False}}
        for mode, platforms, expected in (
            ("reply", {}, ("hot", True, False)),
            ("private", {}, ("hot", False, True)),
            ("private", {"brook": {"private": False}}, ("hot", True, False)),
            ("private", bare, ("@mossandloam hot", False, False)),
        ):
            with self.subTest(mode=mode, platforms=platforms):
                (say,) = of(run(kit(mode=mode) | {"platforms": platforms}, says(0, "!kiln")), "say")
                self.assertEqual((say.text, bool(say.reply_to), bool(say.private_to)), expected)
        refused = run(kit(private_only=True) | {"platforms": bare}, says(0, "!kiln"))
        self.assertEqual(whys(refused), ["unsupported"])

    def test_answers_on_all_live_platforms(self) -> None:
        effects = run(kit(answer_on="all"), live(), live(0, "lantern"), says(1, "!kiln"))
        self.assertEqual([s.platform for s in of(effects, "say")], ["brook", "lantern"])

    def test_no_slash_commands_and_no_pings_for_all(self) -> None:
        self.assertFalse(said(run(kit(reply="/ban sam"), says(0, "!kiln")))[0].startswith("/"))
        self.assertNotIn("@everyone", said(run(kit(reply="hi @everyone"), says(0, "!kiln")))[0])

    @given(st.text(alphabet="ab c/", max_size=300), st.integers(20, 60))
    @settings(max_examples=200, deadline=None)
    def test_parts_fit_and_are_at_most_three(self, text: str, length: int) -> None:
        found = split(text, length)
        self.assertLessEqual(len(found), 3)
        self.assertTrue(all(0 < len(part) <= length for part in found))

    def test_stale_messages_are_judged_but_not_answered(self) -> None:
        from gentlegate.core.engine import Engine
        from tests.support.logs import at

        engine = Engine(kit())
        self.assertEqual(said(engine.handle(says(0, "!kiln"), at(60))), ["hot"])
        self.assertEqual(engine.handle(says(0, "!kiln"), at(61)), [])


class BuiltIns(unittest.TestCase):
    def test_title(self) -> None:
        effects = run(
            {}, live(title="Old"), live(0, "lantern", title="Old"), says(1, "!title New bowls", "m", "moderator")
        )
        self.assertEqual(
            [(t.platform, t.title) for t in of(effects, "title")],
            [("brook", "New bowls"), ("lantern", "New bowls")],
        )
        self.assertEqual(said(effects), ['Title is now "New bowls". Before: "Old".'])
        self.assertEqual(whys(run({}, live(), says(1, "!title mine"))), ["level"])
        self.assertEqual(said(run({}, live(title="Old"), says(1, "!title"))), ['Title: "Old".'])

    def test_a_title_too_long_for_one_platform(self) -> None:
        settings = {"platforms": {"brook": {"title": 10}, "lantern": {}}}
        effects = run(settings, live(), live(0, "lantern"), says(1, "!title Twelve bowls", "m", "moderator"))
        self.assertEqual([t.platform for t in of(effects, "title")], ["lantern"])
        self.assertIn("at most 10 characters; this one has 12", said(effects)[0])
        nowhere = run(
            {"platforms": {"brook": {"title": 10}}}, live(), says(1, "!title Twelve bowls", "m", "moderator")
        )
        self.assertEqual((whys(nowhere), of(nowhere, "title")), (["arguments"], []))

    def test_a_title_from_the_desk_says_where_it_does_not_fit(self) -> None:
        settings = {"platforms": {"brook": {"title": 10}, "lantern": {}}}
        effects = run(settings, live(), live(0, "lantern"), desk(1, "title", title="Twelve bowls"))
        self.assertEqual([(e.effect, e.platform) for e in effects], [("title", "lantern"), ("refused", "brook")])  # type: ignore[attr-defined]
        with self.assertRaisesRegex(ActError, "at most 10 characters; this one has 12"):
            run(settings, live(), desk(1, "title", title="Twelve bowls"))
        with self.assertRaises(ActError):
            run(settings, live(), desk(1, "title", title="  "))

    def test_saying_something_from_the_desk_needs_somebody_to_read_it(self) -> None:
        effects = run({}, live(), live(0, "lantern"), desk(1, "say", text="/hello"))
        self.assertEqual(
            [(s.platform, s.text) for s in of(effects, "say")], [("brook", "· /hello"), ("lantern", "· /hello")]
        )
        with self.assertRaisesRegex(ActError, "no platform is live"):
            run({}, desk(1, "say", text="hello"))

    def test_a_cooldown_is_cleared_from_the_desk_once(self) -> None:
        settings = kit(cooldown={"everyone": "1m"})
        effects = run(settings, says(0, "!kiln"), desk(1, "clear", command="kiln"), says(2, "!kiln"))
        self.assertEqual(len(said(effects)), 2)
        with self.assertRaisesRegex(ActError, "over already"):
            run(settings, desk(1, "clear", command="kiln"))

    def test_a_title_on_one_platform(self) -> None:
        effects = run({}, live(), live(0, "lantern"), says(1, "!title New on lantern", "m", "moderator"))
        self.assertEqual([(t.platform, t.title) for t in of(effects, "title")], [("lantern", "New")])

    def test_a_title_before_going_live_goes_to_every_platform_known(self) -> None:
        effects = run({"platforms": {"lantern": {}}}, says(0, "!title Soon", "m", "moderator"))
        self.assertEqual([t.platform for t in of(effects, "title")], ["brook", "lantern"])

    def test_uptime(self) -> None:
        self.assertEqual(said(run({}, live(), says(6180, "!uptime"))), ["Live for 1 h 43 min."])
        self.assertEqual(said(run({}, says(0, "!uptime"))), ["Not live right now."])

    def test_commands_lists_what_one_may_use_here(self) -> None:
        settings = {"commands": [KILN, {"name": "secret", "reply": "x", "needs": {"level": "lead"}}]}
        self.assertEqual(
            said(run(settings, says(0, "!commands"))),
            ["Commands: !kiln !commands !uptime !following !title !category !count !quote"],
        )

    def test_renamed_switched_off_and_relevelled(self) -> None:
        settings = {
            "built_ins": {"uptime": {"names": ["since"], "needs": {"level": "vip"}}, "count": {"on": False}}
        }
        self.assertEqual(run(settings, says(0, "!uptime")), [])
        self.assertEqual(whys(run(settings, says(0, "!since"), says(9, "!count x"))), ["level", "disabled"])


HOSTILE = (
    "{{ (1..300000000) | join: ',' }}",
    "{% for i in (1..100000) %}{% for j in (1..100000) %}x{% endfor %}{% endfor %}",
    "{% assign a = 'aaaaaaaa' %}{% for i in (1..500) %}{% assign a = a | append: a %}{% endfor %}{{ a }}",
    "{{ 999999999999 | times: 999999999999 | times: 99999999999999 }}",
    "{% for i in (1..500) %}{{ args | replace: 'a', 'bbbbbbbbbbbbbbbbbbbbbbbb' }}{% endfor %}",
    "{{ args | replace: '', 'yyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyyy' }}",
    "{% capture c %}{% for i in (1..400) %}{{ args }}{% endfor %}{% endcapture %}{{ c }}",
    "{% assign x = (1..500) %}{% for a in x %}{% for b in x %}{{ a }}{% endfor %}{% endfor %}",
    "{{ (1..199) | reverse | join: args | split: 'a' | join: args | upcase | url_encode }}",
    "{{ 'x' | append: args | append: args | append: args }}",
    "{{ 'a' | roll }}",
    "{{ 10 | divided_by: 0 }}",
)


class ManyCommands(unittest.TestCase):
    def test_a_thousand_commands_cost_no_more_than_ten(self) -> None:
        def hearing(commands: int, cues: int) -> Callable[[], object]:
            document = {
                "commands": [
                    {"name": f"name{n}", "aliases": [f"a{n}x{k}" for k in range(5)], "reply": "x"}
                    for n in range(commands)
                ],
                "cues": [{"name": f"c{n}", "hears": [f"word{n} other{n}"], "reply": "x"} for n in range(cues)],
            }
            engine, texts = Engine(document), ("the rim is so even", "!name7", "!a5x3 please", "!nothing here")
            times = iter(range(1, 10**9))
            return lambda: [engine.handle(says(next(times), text, "v", "vip")) for text in texts * 60]

        self.assertLess(ratio(hearing(1000, 200), hearing(10, 2), 1.2), 1.2)


class Hostile(unittest.TestCase):
    def test_each_says_nothing_and_costs_little(self) -> None:
        def said(template: str) -> str | None:
            try:
                return render(template, {"args": "a" * 1900}, lambda: random.Random(1))
            except TemplateProblem:
                return None

        usual = "{% for i in (1..50) %}{{ args | upcase | size }}{% endfor %}"
        for template in HOSTILE:
            with self.subTest(template):
                self.assertIsNone(said(template))
                self.assertLess(ratio(lambda: said(template), lambda: said(usual), 40), 40)  # noqa: B023
