"""Running the stream from chat: category, markers, clips, ads, raids, shoutouts, arrivals, happenings, quotes."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, KitError
from gentlegate.core.events import Answer, Happening
from gentlegate.core.kit.load import load_kit
from gentlegate.core.stream.categories import agree, nearest
from tests.support.logs import at, desk, live, moments, of, offline, person, run, said, says, whys

MOD = ("odalys", "moderator")
LEAD = {"people": {"leads": ["brook:@odalys"]}}
NAMES = ["Wheel throwing", "Glaze lab", "Kiln opening", "Hand building", "Tea & talk"]
WICKER = {"login": "wickerworks", "name": "Wicker Works", "link": "https://wicker.example", "category": "Baskets"}
QUIET = {"login": "quietpots", "name": "Quiet Pots", "link": "https://quiet.example"}
PLATFORMS: dict[str, Any] = {
    "brook": {"categories": NAMES, "channels": [WICKER, QUIET], "ads": [20, 45, 75, 150]},
    "lantern": {"categories": ["Throwing", "Glazing", "Talk"], "clip": False, "raid": False, "shoutout": False},
    "plaza": {"marker": False, "ads": [40]},
}
KIT: dict[str, Any] = {"platforms": PLATFORMS, "filters": {"newcomers": {"on": False}}, **LEAD}


def moderator(when: float, text: str, platform: str = "brook") -> Any:
    return says(when, text, "odalys", "moderator", platform=platform)


class Categories(unittest.TestCase):
    def answers(self, text: str, kit: dict[str, Any] = KIT, *platforms: str) -> tuple[list[Any], list[str]]:
        on = [live(0, name) for name in platforms or ("brook",)]
        effects = run(kit, *on, moderator(1, text))
        return [(e.platform, e.category) for e in of(effects, "category")], said(effects)

    def test_a_table_of_names(self) -> None:
        for typed, category in (
            ("wheel THROWING", "Wheel throwing"),
            ("whel throwing", "Wheel throwing"),
            ("tea & talk", "Tea & talk"),
            ("wheel", None),
            ("pottery", None),
        ):
            with self.subTest(typed):
                found = [("brook", category)] if category else []
                self.assertEqual(self.answers(f"!category {typed}")[0], found)

    def test_suggestions_can_be_used_as_they_stand(self) -> None:
        _, (answer,) = self.answers("!game kiln")
        self.assertTrue(answer.startswith('Brook has no category "kiln"; nearest: "Kiln opening"'), answer)
        self.assertEqual(answer.count('"'), 8)
        effects = run(KIT, live(), moderator(1, "!game kiln"))
        self.assertEqual(whys(effects), ["arguments"])

    def test_two_that_are_as_near_are_not_guessed(self) -> None:
        self.assertIsNone(nearest("glaze lav", ["Glaze lab", "Glaze law"]).entry)
        self.assertEqual(nearest("glaze lav", ["Glaze lab", "Glaze law"]).nearest, ("Glaze lab", "Glaze law"))

    def test_partial_success_is_said_plainly(self) -> None:
        took, (answer,) = self.answers("!category glaze lab", KIT, "brook", "lantern", "plaza")
        self.assertEqual(took, [("brook", "Glaze lab"), ("plaza", "glaze lab")])
        self.assertIn('Lantern has no category "glaze lab"; nearest:', answer)

    def test_pins_and_shortcuts(self) -> None:
        pins = [{"name": "Wheel throwing", "shortcuts": ["wheel"], "platforms": {"lantern": "Throwing"}}]
        kit = KIT | {"channel": {"categories": pins}}
        took, (answer,) = self.answers("!category WHEEL", kit, "brook", "lantern")
        self.assertEqual(took, [("brook", "Wheel throwing"), ("lantern", "Throwing")])
        self.assertIn("Before: none.", answer)
        with self.assertRaises(KitError) as caught:
            load_kit({"channel": {"categories": [*pins, {"name": "Other", "shortcuts": ["Wheel"]}]}})
        self.assertEqual(caught.exception.path, "channel.categories.1")

    def test_a_slip_in_a_pinned_name_means_it_everywhere(self) -> None:
        pins = [{"name": "Glaze lab", "platforms": {"lantern": "Glazing"}}, {"name": "Glaze lav"}]
        kit = KIT | {"channel": {"categories": pins[:1]}}
        expected = [("brook", "Glaze lab"), ("lantern", "Glazing"), ("plaza", "Glaze lab")]
        self.assertEqual(self.answers("!category glase lab", kit, "brook", "lantern", "plaza")[0], expected)
        unclear = KIT | {"channel": {"categories": pins}}
        self.assertEqual(self.answers("!category glaze lax", unclear, "lantern")[0], [])
        exact = KIT | {"channel": {"categories": [{"name": "Tea & talks", "platforms": {"brook": "Glaze lab"}}]}}
        self.assertEqual(self.answers("!category tea & talk", exact)[0], [("brook", "Tea & talk")])

    def test_whether_platforms_agree(self) -> None:
        kit = {"channel": {"categories": [{"name": "Glaze lab", "platforms": {"lantern": "Glazing"}}]}}
        parts = Engine(kit).parts
        for categories, same in (
            ({"brook": "Glaze lab", "lantern": "Glazing"}, True),
            ({"brook": "glaze  LAB", "plaza": "Glaze lab"}, True),
            ({"brook": "Glazing", "lantern": "Glazing"}, False),
            ({"brook": "Tea", "lantern": "Glazing"}, False),
            ({}, True),
        ):
            with self.subTest(categories):
                self.assertEqual(agree(parts, categories), same)

    def test_read_by_everyone_set_by_moderators_on_one(self) -> None:
        events = (
            live(category="Glaze lab"),
            live(platform="plaza"),
            says(1, "!category"),
            says(9, "!category kiln"),
        )
        effects = run(KIT, *events, moderator(20, "!category mugs on plaza"))
        self.assertEqual(said(effects)[0], 'Category: "Glaze lab".')
        self.assertEqual(whys(effects), ["level"])
        self.assertEqual([(e.platform, e.category) for e in of(effects, "category")], [("plaza", "mugs")])

    def test_live_the_platforms_are_asked_and_it_waits_for_all(self) -> None:
        engine = Engine(KIT, can_ask=True)
        for name in ("brook", "lantern"):
            engine.handle(live(0, name))
        effects = engine.handle(moderator(1, "!category throwing"))
        self.assertEqual([(e.platform, e.what, e.name) for e in of(effects, "lookup")], [("brook", "category", "throwing"), ("lantern", "category", "throwing")])  # fmt: skip
        ask = effects[0].ask
        self.assertEqual(engine.handle(Answer(at(2), ask, "lantern", {"names": ["Throwing"]})), [])
        self.assertEqual(engine.handle(Answer(at(2), ask, "lantern", {"names": ["Other"]})), [])
        effects = engine.handle(Answer(at(3), ask, "brook", None, "no answer from the platform"))
        self.assertEqual([(e.platform, e.category) for e in of(effects, "category")], [("lantern", "Throwing")])
        self.assertIn("Brook: no answer from the platform.", said(effects)[0])
        self.assertEqual(engine.handle(Answer(at(4), ask, "brook", {"names": []})), [])


class MarksAndAds(unittest.TestCase):
    def test_a_marker_where_it_can_be_kept_and_always_here(self) -> None:
        engine = Engine(KIT)
        self.assertEqual(whys(engine.handle(moderator(0, "!marker early"))), ["offline"])
        engine.handle(live(10, "plaza"))
        effects = engine.handle(moderator(130, "!marker first bowl", "plaza"))
        self.assertEqual([(e.platform, e.note) for e in of(effects, "marker")], [(None, "first bowl")])
        self.assertEqual(said(effects), ["Marked at 2 min: first bowl."])
        engine.handle(live(140, "brook"))
        effects = engine.handle(moderator(150, "!marker"))
        self.assertEqual([(e.platform, e.note) for e in of(effects, "marker")], [("brook", "")])
        self.assertEqual([r.note for _, r in engine.state.markers.items()], ["first bowl", ""])

    def test_a_clip_is_answered_with_its_link(self) -> None:
        engine = Engine(KIT, can_ask=True)
        engine.handle(live(0, "lantern"))
        self.assertEqual(whys(engine.handle(moderator(1, "!clip", "lantern"))), ["unsupported"])
        engine.handle(live(2, "brook"))
        (clip,) = engine.handle(moderator(3, "!clip", "lantern"))
        self.assertEqual((clip.effect, clip.platform), ("clip", "brook"))
        answer = engine.handle(Answer(at(4), clip.ask, "brook", {"link": "https://brook.example/c/1"}))
        self.assertEqual([e.link for e in of(answer, "clip")], ["https://brook.example/c/1"])
        self.assertEqual(
            [(e.platform, e.text) for e in of(answer, "say")], [("lantern", "Clip: https://brook.example/c/1")]
        )

    def test_ads_take_the_platforms_lengths_only(self) -> None:
        for typed, why, words in (
            ("!ad 30", "arguments", "Brook takes ad breaks of 20, 45, 75, 150 seconds."),
            ("!ad", "arguments", "20, 45"),
            ("!ad 45 on lantern", "unsupported", "Lantern has no ad breaks."),
            ("!ad 40 on plaza", "offline", "Plaza is not live."),
        ):
            with self.subTest(typed):
                effects = run(KIT, live(), moderator(1, typed))
                self.assertEqual(whys(effects), [why])
                self.assertIn(words, said(effects)[0])
        effects = run(KIT, live(), moderator(1, "!ad 45s"), moderator(20, "!ad 20"), moderator(46, "!ad 20"))
        self.assertEqual([(e.platform, e.seconds) for e in of(effects, "ad")], [("brook", 45), ("brook", 20)])
        self.assertEqual(whys(effects), ["duplicate"])


class Raids(unittest.TestCase):
    def test_it_goes_after_thirty_seconds(self) -> None:
        effects = run(KIT, live(), moderator(1, "!raid @WickerWorks"), until=60)
        self.assertEqual(said(effects), ["Raid to Wicker Works goes in 30 s. !raid cancel stops it."])
        self.assertEqual([(e.platform, e.target) for e in of(effects, "raid")], [("brook", "wickerworks")])
        self.assertEqual(moments(of(effects, "raid")), [31])

    def test_any_moderator_calls_it_off(self) -> None:
        events = (live(), moderator(1, "!raid wickerworks"), says(5, "!raid cancel", "bram", "moderator"))
        effects = run(KIT, *events, says(6, "!raid cancel", "bram", "moderator"), until=60)
        self.assertEqual(said(effects)[1], "The raid to Wicker Works is called off. Odalys had armed it.")
        self.assertEqual((of(effects, "raid"), whys(effects)), ([], ["arguments"]))

    def test_who_where_and_whom(self) -> None:
        for event, why in (
            (says(1, "!raid wickerworks", "bram", "moderator"), "level"),
            (moderator(1, "!raid nobody_here"), "arguments"),
            (moderator(1, "!raid"), "arguments"),
            (moderator(1, "!raid x", "lantern"), "unsupported"),
            (moderator(1, "!raid x on plaza"), "offline"),
            (says(1, "!raid marlo", "marlo", "broadcaster"), "arguments"),
        ):
            with self.subTest(event.text):
                self.assertEqual(whys(run(KIT | {"people": {"leads": ["brook:@odalys", "lantern:@odalys"]}}, live(), event)), [why])  # fmt: skip
        effects = run(KIT, live(), moderator(1, "!raid wickerworks"), moderator(9, "!raid quietpots"))
        self.assertEqual(whys(effects), ["duplicate"])

    def test_a_stream_that_ended_raids_nobody(self) -> None:
        effects = run(KIT, live(), moderator(1, "!raid wickerworks"), offline(10), until=60)
        self.assertEqual(of(effects, "raid"), [])


class Shoutouts(unittest.TestCase):
    def test_templates_lines_and_the_platforms_own(self) -> None:
        events = (live(), moderator(1, "!so set WickerWorks The best baskets."), moderator(2, "!so @wickerworks"))
        effects = run(KIT, *events, moderator(3, "!so quietpots"), moderator(4, "!so nobody_here"))
        self.assertEqual(
            said(effects)[1:],
            [
                "The best baskets. Have a look at Wicker Works: https://wicker.example, last seen with Baskets",
                "Say hello to Quiet Pots: https://quiet.example",
                'Brook knows no channel named "nobody_here".',
            ],
        )
        self.assertEqual([e.target for e in of(effects, "shoutout")], ["wickerworks", "quietpots"])
        self.assertEqual(whys(effects), ["arguments"])

    def test_the_guard_names_who_did_it_and_ends(self) -> None:
        bram = ("bram", "moderator")
        events = (live(), moderator(1, "!so wickerworks"), says(300, "!so WICKERWORKS", *bram))
        effects = run(KIT, *events, says(301, "!so wickerworks", *bram))
        self.assertEqual(whys(effects), ["duplicate"])
        self.assertIn("Odalys gave Wicker Works a shoutout 4 min 59 s ago.", said(effects))
        self.assertEqual(moments(of(effects, "shoutout")), [1, 301])

    def test_an_unknown_name_guards_nothing(self) -> None:
        effects = run(KIT, live(), moderator(1, "!so nobody"), moderator(2, "!so nobody"))
        self.assertEqual(whys(effects), ["arguments", "arguments"])

    def test_a_line_is_changed_and_cleared(self) -> None:
        texts = ("!so set a.b hello", "!so set a.b there", "!so clear a.b", "!so clear a.b", "!so set a.b {{ oops")
        effects = run(KIT, live(), *(moderator(n, text) for n, text in enumerate(texts, 1)))
        self.assertEqual(said(effects)[1], 'The line for a.b is now "there". Before: "hello".')
        self.assertEqual([e.after for e in of(effects, "setting")], ["hello", "there", None])
        self.assertEqual(whys(effects), ["arguments", "arguments"])


class Arrivals(unittest.TestCase):
    def greeted(self, *events: Any, **arrivals: Any) -> list[str]:
        settings = {"greet": "Welcome, {{ person.name }}", **arrivals}
        kit = KIT | {"arrivals": settings, "people": {"ignored": ["brook:@bot"], "leads": []}}
        return said(run(kit, *events, until=400))

    def test_the_first_message_of_a_stream_and_not_the_broadcasters(self) -> None:
        events = (says(0, "early", "early"), live(1), says(2, "hi", "ada"), says(3, "hi", "ada"))
        more = (says(4, "hi", "marlo", "broadcaster"), says(5, "hi", "bot"), says(6, "hi", "bee", "bot"))
        skipped = says(7, "hi", "sam")
        again = (offline(10), live(20), says(21, "hi", "ada"), offline(30), live(700), says(701, "hi", "ada"))
        found = self.greeted(*events, *more, skipped, *again, skip=["brook:@sam"])
        self.assertEqual(found, ["Welcome, Ada", "Welcome, Ada"])

    def test_a_removed_message_is_no_arrival(self) -> None:
        found = self.greeted(live(), says(1, "see bad.test", "ada"), says(40, "sorry", "ada"))
        self.assertEqual([text for text in found if "Welcome" in text], ["Welcome, Ada"])

    def test_more_than_four_in_thirty_seconds_are_greeted_together(self) -> None:
        events = [says(1 + n, "hi", f"p{n}") for n in range(7)]
        kit = KIT | {"arrivals": {"greet": "Welcome, {{ person.name }}"}}
        effects = of(run(kit, live(), *events, until=100), "say")
        self.assertEqual(effects[-1].text, "Welcome, P4, P5 and P6")
        self.assertEqual(moments(effects), [1, 2, 3, 4, 31])

    @given(st.lists(st.integers(0, 90), min_size=1, max_size=25))
    @settings(max_examples=60, deadline=None)
    def test_never_more_than_four_in_thirty_seconds(self, whens: list[int]) -> None:
        events = [says(when, "hi", f"p{n}") for n, when in enumerate(sorted(whens))]
        kit = KIT | {"arrivals": {"greet": "{{ person.name }}"}, "filters": {"copycats": {"on": False}}}
        effects = of(run(kit, live(), *events, until=300), "say")
        times = moments(effects)
        for place, when in enumerate(times):
            self.assertLessEqual(sum(when <= other < when + 30 for other in times[place:]), 4)
        everyone = " ".join(effect.text for effect in effects)
        self.assertTrue(all(f"P{n}" in everyone for n in range(len(whens))))

    def test_a_shoutout_on_arrival_once_and_forgotten_for_a_test(self) -> None:
        kit = KIT | {"arrivals": {"shoutout": ["brook:@wickerworks"]}}
        engine = Engine(kit)
        engine.handle(live())
        self.assertEqual(
            [e.target for e in of(engine.handle(says(1, "hi", "wickerworks")), "shoutout")], ["wickerworks"]
        )
        self.assertEqual(engine.handle(says(2, "hi", "wickerworks")), [])
        engine.handle(desk(3, "arrivals", person="brook:u-wickerworks"))
        self.assertEqual(engine.handle(says(4, "hi", "wickerworks")), [], "the guard still holds")
        with self.assertRaises(ActError):
            Engine(kit).handle(desk(3, "arrivals"))


class Happenings(unittest.TestCase):
    def happen(self, when: float, what: str, **more: Any) -> Happening:
        return Happening(at(when), "brook", what, person("ada"), **more)

    def test_templates_in_turn(self) -> None:
        kit = KIT | {"happenings": {"tip": ["{{ person.name }}: {{ amount }} {{ text }}", "thanks"], "raid": "{{ amount }} guests"}}  # fmt: skip
        events = [self.happen(n, "tip", amount=5.0, text="for clay") for n in range(1, 4)]
        effects = run(kit, live(), *events, self.happen(9, "raid", amount=300), self.happen(10, "follow"))
        self.assertEqual(said(effects), ["Ada: 5 for clay", "thanks", "Ada: 5 for clay", "300 guests"])
        self.assertEqual(of(effects, "say")[0].cause.kind, "happening")

    def test_a_template_that_fails_warns(self) -> None:
        with self.assertRaises(KitError) as caught:
            load_kit({"happenings": {"tip": ["ok", "{{ oops"]}})
        self.assertEqual(caught.exception.path, "happenings.tip.1")
        effects = run(KIT | {"happenings": {"tip": "{{ 1 | divided_by: 0 }}"}}, live(), self.happen(1, "tip"))
        self.assertEqual([e.effect for e in effects], ["warning"])


class Quotes(unittest.TestCase):
    def setUp(self) -> None:
        self.engine = Engine(KIT | {"channel": {"name": "Kiln & Kettle", "cooldown": "none"}})
        self.engine.handle(live(category="Glaze lab"))
        self.now = 1.0

    def chat(self, text: str, login: str = "odalys", *badges: str) -> list[Any]:
        self.now += 1
        return self.engine.handle(says(self.now, text, login, *(badges or ("moderator",))))

    def test_added_shown_searched_removed_and_restored(self) -> None:
        self.assertEqual(said(self.chat("!quote")), ["There is no quote yet."])
        self.assertEqual(said(self.chat("!quote add Clay remembers")), ["Quote 1 is added."])
        self.chat("!quote add The kettle is a clock")
        line = said(self.chat("!quote KETTLE"))[0]
        self.assertEqual(line, "Quote 2: “The kettle is a clock” Kiln & Kettle, 2026-03-07, Glaze lab")
        self.assertEqual(said(self.chat("!quote remove 1")), ['Quote 1 is removed. It was "Clay remembers".'])
        self.assertEqual(said(self.chat("!quote 1")), ["There is no quote 1."])
        self.assertEqual(said(self.chat("!quote add Third")), ["Quote 3 is added."])
        self.engine.handle(desk(self.now, "quote", number=1, restore=True))
        self.assertIn("Clay remembers", said(self.chat("!quote 1"))[0])
        with self.assertRaises(ActError):
            self.engine.handle(desk(self.now, "quote", number=1, restore=True))

    def test_who_may_what(self) -> None:
        self.assertEqual(whys(self.chat("!quote add x", "ada", "bot")), ["level"])
        self.assertEqual(said(self.chat("!quote add x", "ada", "vip")), ["Quote 1 is added."])
        self.assertEqual(whys(self.chat("!quote remove 1", "ada", "vip")), ["level"])
        self.assertEqual(whys(self.chat("!quote remove 9")), ["arguments"])

    @given(st.integers(1, 12), st.integers(1, 30))
    @settings(max_examples=25, deadline=None)
    def test_none_of_the_last_five_again(self, count: int, shows: int) -> None:
        self.setUp()
        for number in range(count):
            self.chat(f"!quote add saying {number}")
        shown = [said(self.chat("!quote"))[0] for _ in range(shows)]
        for place, line in enumerate(shown):
            if count > 5:
                self.assertNotIn(line, shown[max(0, place - 5) : place])

    def test_a_reply_may_have_a_quote(self) -> None:
        self.chat("!quote add Clay remembers")
        self.chat("!teach wise {{ quote.number }}: {{ quote.text }}")
        self.assertEqual(said(self.chat("!wise")), ["1: Clay remembers"])


if __name__ == "__main__":
    unittest.main()
