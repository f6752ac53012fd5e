"""Sentences that the service says about what somebody typed can be said in every language."""

import re

from tests.project.test_sources import PROJECT

SAID = re.compile(r'said\(\s*"(\w+)"')


def test_every_kind_of_sentence_has_words():
    sources = (PROJECT / "src/anchorline").rglob("*.py")
    kinds = {kind for path in sources for kind in SAID.findall(path.read_text())}
    english = (PROJECT / "embed/src/words/en.ts").read_text()
    words = set(re.findall(r"^  (\w+):", english, re.MULTILINE))
    mapped = re.search(
        r"const PROBLEMS.*?= \{(.*?)\}", (PROJECT / "embed/src/words.ts").read_text(), re.DOTALL
    )
    renamed = dict(re.findall(r'(\w+): "(\w+)"', mapped.group(1)))
    assert len(kinds) > 15
    assert {renamed.get(kind, kind) for kind in kinds} <= words
