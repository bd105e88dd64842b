from __future__ import annotations

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.text.link_entries import MOST_HOSTS, EntryIndex, HostSet, read_entry, read_hosts, resolve
from gentlegate.core.text.links import find_links

NO_LINKS = """
see e.g. the manual
v1.2 and 3.14 and 10.30 uhr
wait...what
mail sam@kiln.example please
mail anna.shop@kiln.example or a.b@c.test
notes.txt and readme.md and main.py
love it.so much
good.to see you
ok.then
the dot com bubble
a red dot net
h.e.l.l.o
done.Next line
p.m. or a.m.
U.S. clay
just a dot . com
12:30.then
the kiln is at 640.Today we glaze
…or not
example . com
C:\\kiln\\notes
1.2.3
""".strip().splitlines()

LINKS = {
    "kiln.example": "kiln.example",
    "KILN.Example!": "kiln.example",
    "see https://kiln.example/shop?x=1#y now": "kiln.example",
    "www.love.it": "www.love.it",
    "love.it/forever": "love.it",
    "love.it:8080": "love.it",
    "(bad.test)": "bad.test",
    "foo.com.": "foo.com",
    "foo.co.uk": "foo.co.uk",
    "täst.de": "xn--tst-qla.de",
    "кремль.рф": "xn--e1ajeds9e.xn--p1ai",
    "1.2.3.4": "1.2.3.4",
    "http://1.2.3.4:80/x": "1.2.3.4",
    "http://localhost/x": "localhost",
    "https://kiln.example@bad.test/": "bad.test",
    "kiln.example.bad.test": "kiln.example.bad.test",
    "notkiln.example": "notkiln.example",
    "http:\\\\bad.test\\x": "bad.test",
    "bad.test,then more": "bad.test",
}

DISGUISED = {
    "example dot com": "example.com",
    "viewers-now dot test": "viewers-now.test",
    "example(.)com": "example.com",
    "example [dot] com": "example.com",
    "example . com/path": "example.com",
    "hxxp://bad.test": "bad.test",
    "hxxps://bad.test/go": "bad.test",
    "bad．test": "bad.test",
    "bad。test": "bad.test",
    "ｂａｄ.ｔｅｓｔ": "bad.test",
    "b\u200bad.te\u200bst": "bad.test",
}


class FindingLinks(unittest.TestCase):
    def test_ordinary_lines_have_none(self) -> None:
        for line in NO_LINKS:
            with self.subTest(line):
                self.assertEqual([line[link.start : link.end] for link in find_links(line)], [])

    def test_what_a_reader_could_follow(self) -> None:
        for line, host in (LINKS | DISGUISED).items():
            with self.subTest(line):
                self.assertEqual([link.address.host for link in find_links(line)], [host])

    def test_spelled_out_forms_are_left_alone_where_that_is_wanted(self) -> None:
        for line in ("example dot com", "example(.)com", "example . com/path"):
            with self.subTest(line):
                self.assertEqual(find_links(line, disguised=False), [])

    def test_spans_are_in_the_original_text(self) -> None:
        line = "zwj\u200d: go to viewers-now dot test please"
        (link,) = find_links(line)
        self.assertEqual(line[link.start : link.end], "viewers-now dot test")

    def test_a_named_host_is_a_link_whatever_the_word(self) -> None:
        named = EntryIndex([read_entry("studio.so")])
        self.assertEqual(find_links("at studio.so"), [])
        self.assertEqual(len(find_links("at studio.so", named=named)), 1)

    @given(st.text(alphabet="ab.c/:@\\ (dot)。．\u200béß0", max_size=60))
    @settings(max_examples=300, deadline=None)
    def test_any_text_gives_spans_within_it_in_order(self, text: str) -> None:
        end = 0
        for link in find_links(text):
            self.assertTrue(end <= link.start < link.end <= len(text))
            end = link.end

    def test_a_long_run_without_dots_costs_little(self) -> None:
        self.assertEqual(find_links("." + "a" * 50_000), [])
        self.assertEqual(find_links("a-" * 25_000 + ". x"), [])


class Entries(unittest.TestCase):
    def covers(self, entry: str, host: str, tail: str = "") -> bool:
        return read_entry(entry).covers(resolve(host, tail))

    def test_a_host_covers_what_is_below_it(self) -> None:
        self.assertTrue(self.covers("kiln.example", "kiln.example"))
        self.assertTrue(self.covers("kiln.example", "shop.kiln.example", "/x"))
        self.assertFalse(self.covers("kiln.example", "notkiln.example"))
        self.assertFalse(self.covers("kiln.example", "kiln.example.bad.test"))

    def test_a_path_covers_at_a_boundary_as_a_browser_resolves_it(self) -> None:
        for tail, covered in {
            "/shop": True,
            "/shop/": True,
            "/shop/mugs?x": True,
            "/shopping": False,
            "/": False,
            "/a/../shop/x": True,
            "/shop/../secret": False,
            "/shop/%2e%2e/secret": False,
            "\\shop\\x": True,
            "/%73hop": True,
        }.items():
            with self.subTest(tail):
                self.assertEqual(self.covers("kiln.example/shop", "kiln.example", tail), covered)

    def test_an_exact_address_covers_itself_on_both_schemes(self) -> None:
        self.assertTrue(self.covers("https://kiln.example/shop?id=1", "kiln.example", "/shop?id=1"))
        self.assertFalse(self.covers("https://kiln.example/shop?id=1", "kiln.example", "/shop?id=2"))
        self.assertFalse(self.covers("https://kiln.example/shop", "kiln.example", "/shop/x"))

    def test_what_is_no_entry_is_refused(self) -> None:
        for text in ("two words", "", "https://", "..", "//"):
            with self.subTest(text), self.assertRaises(ValueError):
                read_entry(text)


class HostLists(unittest.TestCase):
    def test_hosts_files_and_plain_lists_are_read(self) -> None:
        text = """# a remark
0.0.0.0 bad.test   # trailing
127.0.0.1\tworse.test
::1 sixth.test
127.0.0.1 localhost
plain.test
*.wild.test
.dotted.test
BÜCHER.example
! another remark
two words.test here
"""
        hosts, odd = read_hosts(text)
        self.assertEqual(
            hosts,
            [
                "bad.test",
                "worse.test",
                "sixth.test",
                "plain.test",
                "wild.test",
                "dotted.test",
                "xn--bcher-kva.example",
            ],
        )
        self.assertEqual(odd, [11])

    def test_more_than_is_taken_is_refused(self) -> None:
        with self.assertRaises(ValueError):
            read_hosts("\n".join(f"h{n}.test" for n in range(MOST_HOSTS + 1)))

    def test_a_set_holds_hosts_and_what_is_below_them(self) -> None:
        hosts = HostSet(["bad.test", "Bücher.example"])
        for host, held in (
            ("bad.test", True),
            ("a.b.BAD.test", True),
            ("notbad.test", False),
            ("xn--bcher-kva.example", True),
            ("test", False),
        ):
            with self.subTest(host):
                self.assertEqual(hosts.holds(host), held)

    def test_a_link_behind_another_is_seen(self) -> None:
        self.assertEqual([link.address.host for link in find_links("bad.test/https://kiln.example")], ["bad.test"])
