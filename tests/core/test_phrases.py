"""Phrases through their disguises, and what disguise-reading must not invent."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from gentlegate.core.errors import KitError
from gentlegate.core.kit.load import load_kit
from gentlegate.core.text.patterns import PatternProblem, Patterns, read_pattern
from gentlegate.core.text.phrases import Phrases, read_phrase
from gentlegate.core.text.spelling import fold, fold_fully, fold_with_places

CAUGHT: dict[str, list[str]] = {
    "spam": [
        "spam", "SPAM", "buy spam!", "(spam),", "sp4m", "$pam", "5p4m", "ｓｐａｍ", "𝓼𝓹𝓪𝓶", "ⓢⓟⓐⓜ", "🅂🄿🄰🄼", "🆂🅿🅰🅼", "ꜱᴘᴀᴍ",
        "s\u200bp\u200bam", "s\u00adpam", "s\u0301pa\u0300m", "ѕpam", "spаm", "sрaм", "spaaaam", "sssspam", "s p a m", "s..p..a..m",
        "s-p-a-m", "s_p_a_m", "s*p*a*m", "s|p|a|m", "s/p/a/m", "s  p   a  m", "ｓ ｐ ａ ｍ", "i s p a m", "this is s p a m ok",
        "s p a a a a m", "$ p 4 m", "sp4m!!",
    ],
    "buy followers": ["b u y f o l l o w e r s", "buy   followers", "buy-followers", "BUY F0LL0WER$ now", "buy\nfollowers"],
    "boot": ["boot", "booooot"],
    "bot": ["booooot", "b0t"],
    "hello": ["he11o", "hell0", "he!!o"],
    "idiot": ["1d10t", "!d!ot", "id1ot!"],
    "will": ["w1ll", "willl", "wi11"],
    "ass": ["a$$", "@ss", "as$"],
    "hai": ["h4!"],
    "love": ["Iove you"],
    "resume": ["résumé"],
    "résumé": ["resume", "résumé"],
    "rất": ["rất"],
    "сука": ["сука", "cyка", "СУКА", "с у к а"],
    "ёлочка": ["елочка"],
    "ήλιος": ["ΗΛΙΟΣ"],
    "死ね": ["お前死ねよ"],
    "1488": ["1488 yes"],
    "v1agra": ["viagra", "v!agra"],
}  # fmt: skip
LET_BE: dict[str, list[str]] = {
    "spam": ["spammer", "aspam", "sp am", "sp a m", "spam1", "u i s p a m", "s p a m e", "$pamm", "spàm", "s.p am"],
    "buy followers": ["buyfollowers", "buy. followers", "buy or followers"],
    "cop": ["сор", "СОР", "c.o.pper"],
    "rat": ["rất", "rät"],
    "rất": ["rat"],
    "bob": ["808", "8 0 8"],
    "boot": ["bot"],
    "bot": ["boot", "robots"],
    "hai": ["ha!", "ha!!"],
    "hal": ["ha!"],
    "cat": ["cat$", "cats"],
    "hell": ["hello", "shell"],
    "क": ["कि"],
    "ёлка": ["елка"],
    "1488": ["i4bb"],
    "сор": ["cop"],
}


def hits(entry: str, text: str, **options: Any) -> list[str]:
    found = Phrases([read_phrase(0, entry, **options)]).find(text)
    return [text[hit.start : hit.end] for hit in found]


class Disguises(unittest.TestCase):
    def test_each_is_read_through(self) -> None:
        for entry, texts in CAUGHT.items():
            for text in texts:
                with self.subTest(entry=entry, text=text):
                    self.assertTrue(hits(entry, text))

    def test_none_is_invented(self) -> None:
        for entry, texts in LET_BE.items():
            for text in texts:
                with self.subTest(entry=entry, text=text):
                    self.assertEqual(hits(entry, text), [])

    def test_the_span_goes_from_the_first_to_the_last_letter(self) -> None:
        for text, piece in (
            ("well, SP4M!", "SP4M"),
            ("a s..p..a..m b", "s..p..a..m"),
            ("x spaaaam", "spaaaam"),
            ("s\u200bpam", "s\u200bpam"),
        ):
            with self.subTest(text):
                self.assertEqual(hits("spam", text), [piece])

    def test_modes(self) -> None:
        self.assertEqual(hits("spam", "xspamx", whole=False), ["spam"])
        self.assertEqual(hits("spam", "sp4m", disguised=False), [])
        self.assertEqual(hits("spam", "SPAM", disguised=False), ["SPAM"])

    def test_another_script_is_read_where_the_entry_is_of_it(self) -> None:
        self.assertEqual(hits("cop", "сор"), [])
        self.assertEqual(hits("cop", "сор", lang="ru"), ["сор"])
        self.assertEqual(hits("cop", "сор", lang="el"), [])

    def test_nothing_to_look_for_is_refused(self) -> None:
        for text in ("", " ", "\u200b", "...", " - "):
            with self.subTest(text), self.assertRaises(ValueError):
                read_phrase(0, text)

    @given(st.sampled_from(["spam", "idiot", "buy followers"]), st.text(max_size=20), st.text(max_size=20))
    @settings(max_examples=300, deadline=None)
    def test_a_phrase_between_spaces_is_always_found(self, entry: str, before: str, after: str) -> None:
        text = f"{before}. {entry.upper()} .{after}"
        self.assertTrue(any(fold(piece) == entry for piece in hits(entry, text)), text)

    @given(st.text(alphabet="spam4$@ .-аѕр\u0301\u200b!1", max_size=30))
    @settings(max_examples=500, deadline=None)
    def test_a_span_selects_text_that_is_found_again(self, text: str) -> None:
        for hit in Phrases([read_phrase(0, "spam", whole=False)]).find(text):
            piece = text[hit.start : hit.end]
            self.assertTrue(hits("spam", piece, whole=False), (text, piece))

    @given(st.lists(st.sampled_from(["spam", "eggs", "sp4m", "ham"]), max_size=8), st.booleans())
    @settings(max_examples=200, deadline=None)
    def test_a_longer_list_finds_no_less(self, words: list[str], disguised: bool) -> None:
        text = " ".join(words)
        alone = {hit.start for hit in Phrases([read_phrase(0, "spam", disguised=disguised)]).find(text)}
        more = [read_phrase(n, entry, disguised=disguised) for n, entry in enumerate(["spam", "ham", "eggs spam"])]
        found = {hit.start for hit in Phrases(more).find(text) if hit.phrase == 0}
        self.assertEqual(found, alone)


class Folding(unittest.TestCase):
    def test_look_alikes_only_in_mixed_words(self) -> None:
        for text, folded in (
            ("Héllo WÖRLD", "hello world"),
            ("сор сop", "сор cop"),
            ("ＡＢＣ ﬁne", "abc fine"),
            ("Ελλάδα", "ελλαδα"),
            ("नमस्ते สวัสดี", "नमस्ते สวัสดี"),
        ):
            with self.subTest(text):
                self.assertEqual(fold(text), folded)

    def test_digits_in_words_and_spaces_fully_folded(self) -> None:
        self.assertEqual(fold_fully("  FR33   f0llowers 100 "), "free followers 100")

    def test_every_letter_folds_once_and_for_all(self) -> None:
        for code in (*range(0x80, 0xD800), *range(0xE000, 0x20000)):
            for text in (chr(code), f"a{chr(code)}", f"{chr(code)}ε"):
                once = fold(text)
                if fold(once) != once:
                    self.fail(f"{text!r} folds to {once!r}, and that to {fold(once)!r}")

    @given(st.text(max_size=60) | st.text(alphabet=st.sampled_from("aAбεἐΈЁїñẞ1l "), max_size=8))
    @example("Aἐ")
    @settings(max_examples=1000, deadline=None)
    def test_folding_twice_is_folding_once(self, text: str) -> None:
        once = fold(text)
        self.assertEqual(fold(once), once)

    @given(st.text(alphabet="aàáсорѕ\u0301éß²½١م क्ि🅂①.-_İıﬁΣς", max_size=40) | st.text(max_size=40))
    @settings(max_examples=500, deadline=None)
    def test_the_short_way_and_the_long_way_agree(self, text: str) -> None:
        self.assertEqual(fold(text), fold_with_places(text)[0])

    @given(st.text(max_size=60))
    @settings(max_examples=300, deadline=None)
    def test_places_are_in_order_and_within_the_text(self, text: str) -> None:
        folded, places = fold_with_places(text)
        if places is not None:
            self.assertEqual(len(places), len(folded))
            self.assertEqual(places, sorted(places))
            self.assertTrue(all(0 <= place < len(text) for place in places))


class PatternList(unittest.TestCase):
    def find(self, pattern: str, text: str) -> list[str]:
        found = Patterns([read_pattern(0, pattern)]).find(text)
        return [text[hit.start : hit.end] for hit in found]

    def test_on_the_original_and_on_the_folded_text(self) -> None:
        self.assertEqual(self.find(r"fr[e3]+ \d+", "get FREE 12 now"), ["FREE 12"])
        self.assertEqual(self.find("FREE", "FREE free"), ["FREE"])

    def test_letters_and_edges_of_every_script(self) -> None:
        self.assertEqual(self.find(r"\bсор\w+\b", "сорт асорти"), ["сорт"])
        self.assertEqual(self.find(r"\bсор\b", "сорт"), [])
        self.assertEqual(self.find(r"[\w-]+ё", "зелё-лё"), ["зелё-лё"])

    def test_what_hangs_other_engines_does_not_hang(self) -> None:
        self.assertEqual(self.find(r"(a+)+b", "a" * 5000), [])

    def test_refused_with_its_column(self) -> None:
        for pattern, column in (("a(b", 1), ("ab[", 3), ("(?=x)y", 1), ("x*", 1)):
            with self.subTest(pattern), self.assertRaises(PatternProblem) as caught:
                read_pattern(0, pattern)
            self.assertEqual(caught.exception.column, column)

    def test_a_kit_names_the_entry(self) -> None:
        entries = ["fine", {"text": "a(b", "mode": "pattern"}]
        with self.assertRaises(KitError) as caught:
            load_kit({"filters": {"phrases": {"entries": entries}}})
        self.assertEqual(caught.exception.path, "filters.phrases.entries.1.text")
        with self.assertRaises(KitError) as caught:
            load_kit({"filters": {"phrases": {"allowed": ["ok", "..."]}}})
        self.assertEqual(caught.exception.path, "filters.phrases.allowed.1")


if __name__ == "__main__":
    unittest.main()
