"""Each filter at its limit, and what its measure leaves out."""

from __future__ import annotations

import unittest
from collections.abc import Callable
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.events import Message, Person
from gentlegate.core.text.phrases import Phrases, read_phrase
from tests.support.logs import at, live, of, run, says
from tests.support.timing import ratio

PLAIN = "the rim is so even, how many pulls was it? " * 220
"""As long as the longest that is read."""
FAMILY = "👨‍👩‍👧"


def verdict(kit: dict[str, Any], text: str, *badges: str, **more: Any) -> Any:
    """The verdict on one line of somebody who has been here before."""
    events = (live(), says(1, "hi", "viewer", *badges), says(60, text, "viewer", *badges, **more))
    return of(run(kit, *events, every_verdict=True), "verdict")[-1]


def only(key: str, **values: Any) -> dict[str, Any]:
    return {"filters": {key: values}}


def found(key: str, text: str, kit: dict[str, Any] | None = None, **more: Any) -> tuple[Any, Any] | None:
    """Measure and limit of this filter's finding, if it found anything."""
    for reason in verdict(kit or {}, text, **more).reasons:
        if reason.filter == key:
            return reason.measured, reason.limit
    return None


class Symbols(unittest.TestCase):
    def test_the_share_and_the_least(self) -> None:
        self.assertEqual(found("symbols", "#" * 12), (1.0, 0.6))
        self.assertIsNone(found("symbols", "#" * 11))
        self.assertEqual(found("symbols", "######abcd", only("symbols", least=10)), (0.6, 0.6))
        self.assertIsNone(found("symbols", "#####abcde", only("symbols", least=10)))

    def test_spaces_do_not_count(self) -> None:
        self.assertEqual(found("symbols", "# " * 12), (1.0, 0.6))

    def test_everyday_writing_is_no_symbol(self) -> None:
        for text in (
            "¿Qué? ¡Sí! “quoted” … – «so»",
            "「すごい」、きれいな器ですね。本当に",
            "مرحبا، كيف الحال؟ شكراً جزيلاً لكم",
            "ｗｈａｔ，ａｎｄ！ｗｈｙ？ｎｏｗ：ｙｅｓ",
            "नमस्ते। कैसे हैं आप सब लोग आज यहाँ",
        ):
            with self.subTest(text):
                self.assertIsNone(found("symbols", text, only("symbols", least=1, share=0.2)))

    def test_links_mentions_and_emoji_are_left_out(self) -> None:
        self.assertIsNone(
            found("symbols", "🎉" * 20 + " @moss_and_loam kiln.example/a/b#c", only("symbols", share=0.1))
        )

    def test_stacked_accents(self) -> None:
        self.assertEqual(found("symbols", "he" + "\u0301" * 4 + "llo"), (4, 3))
        self.assertIsNone(found("symbols", "he" + "\u0301" * 3 + "llo"))
        self.assertIsNone(found("symbols", "ที่นี่ น้ำ กี่ ปั้น", only("symbols", marks=0)))


class Counts(unittest.TestCase):
    def test_emotes_and_emoji_are_counted_once_each(self) -> None:
        self.assertIsNone(found("emotes", FAMILY * 18))
        self.assertEqual(found("emotes", FAMILY * 19), (19, 18))
        self.assertEqual(found("emotes", "❤️1️⃣🇵🇹", only("emotes", most=2)), (3, 2))
        self.assertIsNone(found("emotes", "© ™ 1 # *", only("emotes", most=0)))
        text = "kiln " * 3
        spans = tuple((n * 5, n * 5 + 4) for n in range(3))
        self.assertEqual(found("emotes", text + "🎉", only("emotes", most=3), emotes=spans), (4, 3))

    def test_length_is_in_clusters_without_the_command(self) -> None:
        self.assertIsNone(found("length", (FAMILY + "a ") * 133 + "a"))
        self.assertEqual(found("length", "ab " * 134), (402, 400))
        kit = only("length", most=5) | {"commands": [{"name": "shelf", "reply": "x"}]}
        self.assertIsNone(found("length", "!shelf a b", kit))
        self.assertEqual(found("length", "!shelf a b c d", kit), (7, 5))

    def test_distinct_people_are_counted(self) -> None:
        six = " ".join(f"@user{n}" for n in range(6))
        self.assertIsNone(found("mentions", f"{six} @USER0 me@post.test"))
        self.assertEqual(found("mentions", f"{six} @another"), (7, 6))


class Repeats(unittest.TestCase):
    def test_a_run_of_one_character(self) -> None:
        self.assertEqual(found("repeats", "w" + "O" * 24 + "o!"), (25, 25))
        self.assertIsNone(found("repeats", "w" + "o" * 24 + "!"))
        self.assertEqual(found("repeats", "क" * 25), (25, 25))

    def test_one_word(self) -> None:
        self.assertEqual(found("repeats", "No! no, NO. (no) no - no «no»"), (7, 7))
        self.assertIsNone(found("repeats", "no no no no no no"))

    def test_a_chunk_fills_the_line(self) -> None:
        self.assertEqual(found("repeats", "ha" * 20), (1.0, 0.6))
        self.assertIsNone(found("repeats", "ha" * 19 + "h"))
        self.assertEqual(found("repeats", "what a bowl! " * 4 + "what a b"), (1.0, 0.6))
        self.assertIsNone(found("repeats", "abcdefghijk " * 3 + "abcdefghijk"))
        self.assertIsNone(found("repeats", "tea is on " * 4 + "and that is why nobody is at the wheel at all"))
        self.assertEqual(found("repeats", "तुम हम " * 10), (1.0, 0.6))

    def test_nothing_is_joined_across_what_is_left_out(self) -> None:
        text = "no " * 3 + "@someone " + "no " * 4
        self.assertIsNone(found("repeats", text))
        spans = tuple((n * 6, n * 6 + 5) for n in range(10))
        self.assertIsNone(found("repeats", "mugs! " * 10, emotes=spans))

    @given(st.text(alphabet="ab c", max_size=90), st.integers(2, 30))
    @settings(max_examples=200, deadline=None)
    def test_runs_against_a_naive_count(self, text: str, limit: int) -> None:
        longest = run_length = 0
        last = ""
        for sign in text:
            run_length = run_length + 1 if sign == last else 1
            last, longest = sign, max(longest, run_length)
        kit = only("repeats", run=limit, words=1000)
        got = [r for r in verdict(kit, text).reasons if r.filter == "repeats" and r.limit == limit]
        self.assertEqual(bool(got), longest >= limit)


class Manners(unittest.TestCase):
    def test_actions(self) -> None:
        waves = Message(at(1), "brook", "w", Person("brook", "u-a", "a", "A"), "waves", action=True)
        for mood, outcome in (("parlour", "allow"), ("library", "nudge")):
            (got,) = of(run({"channel": {"mood": mood}}, live(), waves, every_verdict=True), "verdict")
            self.assertEqual(got.outcome, outcome)

    def test_false_notices(self) -> None:
        for text in (
            "<message deleted>",
            "‹Message deleted›",
            "removed by a moderator",
            "[removed]",
            "** Message removed by moderator **",
            "(this message has been removed by a moderator)",
            "【message deleted】",
            "mеssage dеleted",
            "message supprimé",
            "сообщение удалено",
        ):
            with self.subTest(text):
                self.assertIsNotNone(found("false_notice", text))
        for text in (
            "removed",
            "deleted!",
            "my message was deleted lol",
            "why was that message removed by a moderator?",
            "the moderator removed my doubts",
            "hidden under the table",
        ):
            with self.subTest(text):
                self.assertIsNone(found("false_notice", text))


class Names(unittest.TestCase):
    KIT = {"filters": {"phrases": {"entries": ["spam", "loaf"], "allowed": ["spam lovers"]}}}

    def look(self, *events: Message) -> list[list[str]]:
        verdicts = of(run(self.KIT, live(), *events, every_verdict=True), "verdict")
        return [[r.text for r in v.reasons if r.filter == "names"] for v in verdicts]

    @staticmethod
    def named(when: float, login: str, name: str, id: str = "u-x") -> Message:
        return Message(at(when), "brook", f"n{when}", Person("brook", id, login, name), "hello")

    def test_at_the_first_line_in_a_stream_and_at_a_new_name(self) -> None:
        found = self.look(
            self.named(1, "sp4m_king", "sp4m_king"),
            self.named(20, "sp4m_king", "sp4m_king"),
            self.named(40, "sp4m_king", "Loaf"),
        )
        self.assertEqual(found, [["sp4m"], [], ["sp4m", "Loaf"]])

    def test_an_allowed_phrase_shields_names_too(self) -> None:
        verdicts = of(run(self.KIT, live(), self.named(1, "x", "spam lovers"), every_verdict=True), "verdict")
        self.assertEqual((verdicts[0].outcome, verdicts[0].exempt[0].by), ("allow", "allowed"))


class Newcomers(unittest.TestCase):
    def first(self, text: str, kit: dict[str, Any] | None = None, **more: Any) -> Any:
        person = Person("brook", "u-n", "newhere", "Newhere", **more)
        message = Message(at(5), "brook", "n", person, text)
        return of(
            run({"filters": {"links": {"on": False}}} if kit is None else kit, live(), message, every_verdict=True),
            "verdict",
        )[0]

    def test_a_first_line_with_a_link_mentions_or_a_pitch(self) -> None:
        for text in ("see bad.test", "@odalys @bram hello", "want to BUY F0LL0WERS?"):
            with self.subTest(text):
                got = self.first(text)
                self.assertEqual((got.outcome, got.filter), ("remove", "newcomers"))
        for text in ("hello all", "hi @bram", "I will buy that one"):
            with self.subTest(text):
                self.assertEqual(self.first(text).outcome, "allow")

    def test_nothing_is_said_and_links_decide_where_both_nudge(self) -> None:
        effects = run({"filters": {"links": {"on": False}}}, live(), says(1, "see bad.test", "fresh"))
        self.assertEqual(of(effects, "say"), [])
        self.assertEqual(
            (self.first("bad.test", {}).outcome, self.first("bad.test", {}).filter), ("nudge", "links")
        )

    def test_an_allowed_link_is_no_pitch(self) -> None:
        kit = {"filters": {"links": {"allowed": ["kiln.example"]}}}
        self.assertEqual(self.first("is kiln.example/shop open?", kit).outcome, "allow")

    def test_young_accounts(self) -> None:
        kit = {"channel": {"mood": "library"}}
        self.assertEqual(self.first("hello", kit, account_since=at(5 - 86399)).outcome, "remove")
        self.assertEqual(self.first("hello", kit, account_since=at(5 - 86400)).outcome, "allow")

    def test_a_list_of_the_channels_own(self) -> None:
        kit = {"filters": {"newcomers": {"phrases": ["free mugs"]}}}
        self.assertEqual(self.first("FREE MUGS here", kit).filter, "newcomers")
        self.assertEqual(self.first("buy followers", kit).outcome, "allow")


class Bounds(unittest.TestCase):
    def test_monstrous_lines_take_little_time(self) -> None:
        kit = {"filters": {"phrases": {"entries": ["spam", {"text": "(x+x+)+y", "mode": "pattern"}]}}}
        for text in (
            "ab c" * 25_000,
            "e" + "\u0301" * 10_000,
            "\0" * 5_000,
            FAMILY * 20_000,
            "a.test " * 14_000,
            "a." * 50_000,
            "s p a m " * 12_000,
            "(dot)" * 20_000,
            "x" * 100_000,
            "@a " * 30_000,
        ):
            with self.subTest(text[:12]):
                self.assertNotEqual(verdict(kit, text).outcome, "allow" if len(text) > 10_000 else "never")
                self.assertLess(ratio(lambda: verdict(kit, text), lambda: verdict(kit, PLAIN), 400, 2), 400)  # noqa: B023

    def test_ten_thousand_phrases_cost_hardly_more_than_a_hundred(self) -> None:
        def finding(count: int) -> Callable[[], object]:
            phrases = Phrases([read_phrase(n, f"word{n:x} other{n * 7:x}") for n in range(count)])
            lines = ["the rim is so even, how many pulls was it", "a kettle and a mug on the shelf"] * 100
            return lambda: [phrases.find(line) for line in lines]

        self.assertLess(ratio(finding(10_000), finding(100), 2), 2)


class Laws(unittest.TestCase):
    @given(st.text(alphabet="ABCdef ", min_size=10, max_size=60))
    @settings(max_examples=150, deadline=None)
    def test_adding_an_emote_never_changes_the_capitals_share(self, text: str) -> None:
        kit = only("capitals", share=0.01, letters=5)
        plain = found("capitals", text, kit)
        with_emote = found("capitals", f"{text} KILNLOVE", kit, emotes=((len(text) + 1, len(text) + 9),))
        self.assertEqual(plain, with_emote)

    @given(
        st.lists(
            st.sampled_from(["bad.test", "kiln.example/shop", "other.test/x", "spam here", "hello"]), max_size=6
        ),
        st.sampled_from(["bad.test", "kiln.example", "other.test/x"]),
    )
    @settings(max_examples=100, deadline=None)
    def test_adding_an_allowed_entry_never_stops_more(self, words: list[str], entry: str) -> None:
        text = " ".join(words) or "hello"
        before = only("links", allowed=["kiln.example/shop"])
        after = only("links", allowed=["kiln.example/shop", entry])
        if verdict(before, text).outcome == "allow":
            self.assertEqual(verdict(after, text).outcome, "allow")


if __name__ == "__main__":
    unittest.main()
