"""Hosts, paths and addresses: how a browser would resolve them, and how a list's entry compares."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

SCHEME = re.compile(r"\s*(?:h(?:tt|xx)ps?|ftp):[/\\]+", re.IGNORECASE)
_ESCAPE = re.compile(r"%([0-9a-fA-F]{2})")
_PLAIN = frozenset(b"abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~")


@dataclass(frozen=True, slots=True)
class Address:
    """Where a link leads: `host` in its ASCII form, `path` resolved (begins with `/`), `query` with its `?`."""

    host: str
    path: str = "/"
    query: str = ""


@dataclass(frozen=True, slots=True)
class Entry:
    """One entry of a list of links. `exact` compares the whole address, otherwise the path is a beginning."""

    host: str
    path: str = ""
    query: str = ""
    exact: bool = False

    def covers(self, address: Address) -> bool:
        if self.exact:
            return (self.host, self.path, self.query) == (address.host, address.path, address.query)
        if address.host != self.host and not address.host.endswith("." + self.host):
            return False
        return not self.path or address.path == self.path or address.path.startswith(self.path + "/")


@lru_cache(maxsize=4096)
def ascii_host(host: str) -> str:
    """A host name as it stands in the DNS (RFC 3492): lower case, no final dot."""
    host = host.rstrip(".").lower()
    if host.isascii():
        return host
    labels = []
    for label in re.split("[.\u3002\uff0e\uff61]", host):
        folded = label.casefold()
        labels.append(folded if folded.isascii() else "xn--" + folded.encode("punycode").decode("ascii"))
    return ".".join(labels)


def resolve(host: str, tail: str) -> Address:
    """The address that a browser would go to; `tail` is all that follows host and port."""
    tail = tail.split("#", 1)[0]
    path, mark, query = tail.partition("?")
    path = _unescape(path.replace("\\", "/"))
    kept: list[str] = []
    for part in path.split("/")[1:]:
        if part == "..":
            kept = kept[:-1]
        elif part != ".":
            kept.append(part)
    return Address(ascii_host(_unescape(host)), "/" + "/".join(kept), mark + query)


def _unescape(text: str) -> str:
    def plain(match: re.Match[str]) -> str:
        byte = int(match[1], 16)
        return chr(byte) if byte in _PLAIN else match[0].upper()

    return _ESCAPE.sub(plain, text) if "%" in text else text


def read_entry(text: str) -> Entry:
    """Read `host`, `host/path` or a whole address. ValueError says what is wrong with it."""
    scheme = SCHEME.match(text)
    rest = text[scheme.end() :] if scheme else text.strip()
    if any(sign.isspace() for sign in rest.strip()):
        raise ValueError(f'"{text}" has a space in it; one entry is one host or address')
    match = re.fullmatch(r"(?:[^@/\\?#]*@)?(\[[0-9a-fA-F:.]+\]|[^:/\\?#]+)(?::\d+)?([/\\?#].*)?", rest.strip())
    if match is None:
        raise ValueError(f'"{text}" is no host such as kiln.example, nor an address')
    address = resolve(match[1].removeprefix("*."), match[2] or "")
    if not address.host or address.host.startswith(".") or ".." in address.host:
        raise ValueError(f'"{text}" is no host such as kiln.example, nor an address')
    if scheme and (address.path != "/" or address.query):
        return Entry(address.host, address.path, address.query, exact=True)
    path = address.path.rstrip("/")
    return Entry(address.host, path)


class EntryIndex:
    """Entries by host, so that a hundred thousand of them cost a look-up for each label of a link's host."""

    def __init__(self, entries: list[Entry]) -> None:
        self._by_host: dict[str, list[tuple[int, Entry]]] = {}
        for index, entry in enumerate(entries):
            self._by_host.setdefault(entry.host, []).append((index, entry))

    def find(self, address: Address) -> int | None:
        """The index of the first entry that covers the address, or None."""
        best: int | None = None
        for host in self._parents(address.host):
            for index, entry in self._by_host.get(host, ()):
                if (best is None or index < best) and entry.covers(address):
                    best = index
        return best

    def names(self, host: str) -> bool:
        """Whether an entry names this host or one above it."""
        return any(parent in self._by_host for parent in self._parents(ascii_host(host)))

    @staticmethod
    def _parents(host: str) -> list[str]:
        labels = host.split(".")
        return [".".join(labels[i:]) for i in range(len(labels))]
