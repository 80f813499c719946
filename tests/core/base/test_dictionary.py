"""What the words mean: every field says more than its name, and the longest term in a label is the one explained."""

import pytest

from knollstack.core.base.dictionary import WORDS, meaning_of, term_in
from knollstack.core.document.described import fields

# a name, a note, a source of one's own: there is nothing to explain
PLAIN = {"format", "version", "name", "note", "source"}


@pytest.mark.parametrize(
    ("label", "term"),
    [
        ("Mud weight", "mud weight"),
        ("Weight", "weight"),
        ("Survey stations", "survey station"),
        ("MAASP", "MAASP"),
        ("Maximum static EMW against fracture", "fracture"),
        ("Shoemaker", None),
        ("Burst backup", "burst backup"),
    ],
)
def test_the_longest_term_in_a_label_is_the_one(label, term):
    assert term_in(label) == term
    assert meaning_of(label) == ("" if term is None else f"{term}: {WORDS[term]}")


def test_every_field_says_what_it_is():
    bare = [p for p, f in fields().items() if f.kind != "part" and not f.help and not f.meaning]
    left = [p for p in bare if p.rsplit("/", 1)[-1] not in PLAIN]
    assert left == []
