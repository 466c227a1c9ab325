"""Which kind of thing a name means: phrases before words, the head of a compound or phrase before what describes it, heading and
mass as witnesses. Where the witnesses disagree nothing is taken: the likeliest kinds are told."""

import math
import re
from collections import defaultdict
from dataclasses import dataclass
from functools import cache, lru_cache
from itertools import groupby
from typing import NamedTuple, get_args

from rapidfuzz import fuzz, process

from omnifer.core.kit.figures import Figures, figures_of, with_bare_count
from omnifer.core.kit.kinds import (
    AND,
    Domain,
    Language,
    Phrase,
    ThingKind,
    grammar,
    kinds,
    names_of_kinds,
    plain,
    root,
    roots_of,
    words_of,
)

LIKELIEST = 3
"""So many kinds are offered where a name is in doubt."""
ROMANCE: frozenset[Language] = frozenset(("fr", "es", "it"))
"""Languages in which what a thing is comes first, and what describes it after."""
_PARTS = re.compile(r"[,;:()\[\]/|]|\s[-–—]\s")
WORD, LETTER = 3.0, 0.12
"""What a matched word counts, and each of its letters."""
COMPOUND, SLIP = -0.8, -1.2
"""What the end of a compound counts less than a word by itself, and a word with a slip of the finger."""
NOT_HEAD, FOREIGN_HEAD, UNKNOWN_BEHIND, MOST_BEHIND = -4.0, -6.0, -0.4, -1.2
DESCRIBES, MOST_DESCRIBED = -3.0, 1.2
HEADING, OTHER_HEADING = 0.9, -0.3
OFF = ((1.0, 0.3), (1.3, -0.3), (1.7, -1.2), (4.0, -2.0), (math.inf, -3.5))
"""What a mass so many times beyond what such things weigh counts."""
SURE, AHEAD = 2.4, 0.8
"""A kind that counts so much, and so much more than any other, is taken."""
SHORTEST_END, SHORTEST_SLIP, LONG = 3, 5, 4
ALIKE = 84.0
"""Words that are so much alike are one with a slip of the finger [%]."""
HARMS = frozenset((
    "stove_gas", "stove_petrol", "stove_alcohol", "canister", "fuel", "fuel_bottle", "alcohol_bottle", "medicine", "lock",
    "strong_lock", "chain_link", "bear_spray",
))  # fmt: skip
"""Kinds for which nobody is taken by a slip of the finger."""


@dataclass(frozen=True)
class Understood:
    """What a name means.

    Attributes
    ----------
    kind : str or None
        The kind that is taken; None where that is in doubt.
    also : tuple of str
        What else a name that joins several tells: mug and spoon.
    likeliest : tuple of str
        The likeliest kinds, whether sure or not.
    """

    kind: str | None
    also: tuple[str, ...]
    likeliest: tuple[str, ...]
    figures: Figures


class _Match(NamedTuple):
    kind: str
    language: Language
    start: int
    end: int
    counts: float


class _Index:
    """The phrases of all kinds by their first root, and all single words; and what words do that are none of them.

    Where a head of a phrase stands among `other_heads`, another thing's name before it only describes: a bottle opener is no
    bottle; `other_heads_first` do the same where they come first, and what comes after a word of `purpose` describes.
    """

    def __init__(self) -> None:
        self.phrases: dict[str, list[tuple[Phrase, str, Language]]] = defaultdict(list)
        self.single: dict[str, list[tuple[str, Language]]] = defaultdict(list)
        self.but = {called.kind: called.but for called in names_of_kinds()}
        for called in names_of_kinds():
            for language, phrases in called.phrases.items():
                for words in phrases:
                    if len(words) == 1:
                        self.single[root(words[0])].append((called.kind, language))
                        continue
                    phrase = tuple([root(word) for word in words])
                    self.phrases[phrase[0]].append((phrase, called.kind, language))
                    self.single[root("".join([word for word in words if word != AND]))].append((called.kind, language))
        told = grammar()
        self.other_heads = frozenset(root(word) for word in told["other_heads"])
        self.other_heads_first = frozenset(told["other_heads_first"])
        self.purpose = re.compile(rf"\b(?:{'|'.join(told['purpose'])})\b")
        self.container = re.compile(rf"^\s*(?:{'|'.join(told['containers'])})\s+of\s+(?=\D)", re.I)
        """A bottle of olive oil is oil."""
        self.words = [word for word in self.single if len(word) >= SHORTEST_SLIP]


@cache
def _index() -> _Index:
    return _Index()


def domain_of(heading: str) -> Domain | None:
    """What a section of a list is about; None where its heading says nothing."""
    said = set(roots_of(heading))
    return next((domain for domain, words in _heading_roots() if said & words), None) if said else None


@cache
def _heading_roots() -> tuple[tuple[Domain, frozenset[str]], ...]:
    return tuple((domain, frozenset(root(word) for word in grammar()[domain])) for domain in get_args(Domain))


@lru_cache(maxsize=8192)
def understood(name: str, mass_kg: float | None = None, heading: str = "") -> Understood:
    """What a name means.

    Parameters
    ----------
    mass_kg : float, optional
        Of the row as the list has it [kg].
    heading : str
        Of the section in which it stands.
    """
    figures = figures_of(name)
    figures = figures._replace(rest=_index().container.sub("", figures.rest))
    domain = domain_of(heading) if heading else None
    parts = [part for part in (_words_of(part) for part in _PARTS.split(figures.rest.lower())) if part[0] or part[1]]
    if not parts:
        return Understood(None, (), (), figures)
    described = [(side, DESCRIBES) for n, part in enumerate(parts) for side in (part if n else part[1:])]
    # "Jacket, rain" is a rain jacket.
    turned = [([*main, *parts[0][0]], 0.0) for main, _ in parts[1:] if main]

    def weighed(*texts: tuple[list[str], float]) -> dict[str, float]:
        counts = dict[str, float]()
        for words, less in texts:
            for kind, count in _counts_of(words).items():
                told = count if less == 0 else min(count + less, MOST_DESCRIBED)
                counts[kind] = max(counts.get(kind, -math.inf), told)
        return {kind: count + _witnesses(kinds()[kind], mass_kg, figures, domain) for kind, count in counts.items()}

    first, *others = _things_joined(parts[0][0])
    found = weighed((first, 0.0), *described, *turned)
    order = sorted(found, key=lambda kind: -found[kind])
    if not _is_sure(order, found):
        return Understood(None, (), tuple(order[:LIKELIEST]), figures)
    also = [
        max(told, key=lambda kind: told[kind]) for words in others if (told := _counts_of(words)) and max(told.values()) >= SURE
    ]
    if order[0] in grammar()["counted"]:
        figures = with_bare_count(figures)
    return Understood(
        order[0], tuple(kind for kind in dict.fromkeys(also) if kind != order[0]), tuple(order[:LIKELIEST]), figures
    )


def _is_sure(order: list[str], counts: dict[str, float]) -> bool:
    """Whether the first counts enough, and is far enough before every other that would mean another thing."""
    if not order or counts[order[0]] < SURE:
        return False
    return len(order) < 2 or counts[order[0]] - counts[order[1]] >= AHEAD


def _words_of(part: str) -> tuple[list[str], list[str]]:
    """The words of a part of a name before and after one of purpose."""
    said = plain(part)
    cut = _index().purpose.search(said)
    before, after = (said, "") if cut is None or not said[: cut.start()].strip() else (said[: cut.start()], said[cut.end() :])
    return words_of(before), words_of(after)


def _things_joined(words: list[str]) -> list[list[str]]:
    """The words of each thing that a name joins; one where a phrase of the table joins them itself."""
    if AND not in words or any(AND in words[match.start : match.end] for match in _matches(words)):
        return [words]
    found = [list(group) for is_and, group in groupby(words, lambda word: word == AND) if not is_and]
    # "Arm + leg warmers": what the last of them is called belongs to all.
    return [group if _matches(group) else [*group, found[-1][-1]] for group in found] or [words]


def _counts_of(words: list[str]) -> dict[str, float]:
    """How much the words of one thing speak for each kind."""
    matches = _matches(words)
    roots = [root(word) for word in words]
    found = dict[str, float]()
    known = {(match.start, match.end) for match in matches if match.counts >= WORD + COMPOUND}
    for match in matches:
        but_beside = _index().but[match.kind]
        if but_beside and any(_is_but(word, but) for word in (*roots[: match.start], *roots[match.end :]) for but in but_beside):
            continue
        romance = match.language in ROMANCE
        behind = roots[: match.start] if romance else roots[match.end :]
        part_of = any(start <= match.start and match.end <= end and end - start > match.end - match.start for start, end in known)
        headed = any(end <= match.start if romance else start >= match.end for start, end in known)
        if part_of or headed:
            less = NOT_HEAD
        elif any(map(_is_other_head, behind)) or _index().other_heads_first & set(words[: match.start]):
            less = FOREIGN_HEAD
        else:
            less = max(UNKNOWN_BEHIND * len([word for word in behind if not word.isdigit() and len(word) > 1]), MOST_BEHIND)
        found[match.kind] = max(found.get(match.kind, -math.inf), match.counts + less)
    return found


def _is_but(word: str, but: str) -> bool:
    return word == but or (len(but) >= LONG and len(word) > len(but) and (word.startswith(but) or word.endswith(but)))


@lru_cache(maxsize=8192)
def _is_other_head(word: str) -> bool:
    index = _index()
    if word in index.other_heads:
        return True
    ends = (end for end in index.other_heads if len(end) >= LONG and len(word) > len(end) + 2)
    return word not in index.single and any(map(word.endswith, ends))


def _matches(words: list[str]) -> tuple[_Match, ...]:
    """All that the words are called in the table: phrases, words, words written in two, ends of compounds; else what differs by a
    slip of the finger."""
    return _all_matches(tuple(words))


@lru_cache(maxsize=8192)
def _all_matches(words: tuple[str, ...]) -> tuple[_Match, ...]:
    index, found = _index(), list[_Match]()
    roots = [root(word) for word in words]
    for n, word in enumerate(roots):
        for phrase, kind, language in index.phrases.get(word, ()):
            if tuple(roots[n : n + len(phrase)]) == phrase:
                found.append(_Match(kind, language, n, n + len(phrase), WORD * len(phrase) + LETTER * sum(map(len, phrase))))
        for kind, language in index.single.get(word, ()):
            found.append(_Match(kind, language, n, n + 1, WORD + LETTER * len(word)))
        for more in range(2, min(3, len(words) - n) + 1):
            whole = root("".join(words[n : n + more]))
            for kind, language in index.single.get(whole, ()):
                found.append(_Match(kind, language, n, n + more, WORD * more + LETTER * len(whole)))
        if word not in index.single and word not in index.phrases:
            found += (_Match(kind, language, n, n + 1, counts) for kind, language, counts in _in_compound(words[n]))
    if not found:
        found = [
            _Match(k, language, n, n + 1, counts) for n, word in enumerate(roots) for k, language, counts in _with_a_slip(word)
        ]
    return tuple(found)


_Said = tuple[str, Language, float]


@lru_cache(maxsize=8192)
def _in_compound(word: str) -> tuple[_Said, ...]:
    """The longest known word that ends a compound, of a language that makes such."""
    index = _index()
    for start in range(3, len(word) - SHORTEST_END + 1):
        end = root(word[start:])
        of = [(kind, language) for kind, language in index.single.get(end, ()) if language not in ROMANCE]
        if of and (len(end) > SHORTEST_END or start > SHORTEST_END):
            return tuple((kind, language, WORD + COMPOUND + LETTER * len(end)) for kind, language in of)
    return ()


@lru_cache(maxsize=8192)
def _with_a_slip(word: str) -> tuple[_Said, ...]:
    """Known words that are nearly this one, of kinds with which no slip does harm."""
    if len(word) < SHORTEST_SLIP or word.isdigit():
        return ()
    index = _index()
    near = process.extract(word, index.words, scorer=fuzz.ratio, score_cutoff=ALIKE, limit=2)
    return tuple(
        (kind, language, WORD + SLIP + LETTER * len(known) + (likeness - 100) / 20)
        for known, likeness, _ in near
        for kind, language in index.single[known]
        if kind not in HARMS
    )


def _witnesses(kind: ThingKind, mass_kg: float | None, figures: Figures, domain: Domain | None) -> float:
    """What mass, figures and heading say for or against a kind."""
    counts = 0.0
    if domain is not None:
        counts += HEADING if kind.domain == domain else OTHER_HEADING
    if mass_kg:
        each = mass_kg / figures.pieces
        off = min(_off(mass, kind) for mass in (mass_kg, each))
        counts += next(counts for most, counts in OFF if off <= most)
    does = kind.role.does if kind.role is not None else None
    told = (
        (figures.celsius is not None, ("sleeping_bag",)),
        (figures.r_value is not None, ("mat",)),
        (figures.wh is not None, ("bank", "cells")),
    )
    return counts + sum(0.8 for said, roles in told if said and does in roles)


def _off(mass_kg: float, kind: ThingKind) -> float:
    """How many times a mass is beyond what things of a kind weigh; at most 1 where it is not."""
    return max(kind.kg_low / mass_kg, mass_kg / kind.kg_high)
