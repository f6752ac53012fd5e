"""Rules in words, for what knows them as they are written down alone."""

from anchorline.core.mapping import rule_fills
from anchorline.core.mapping.words import changes_in_words, conditions_in_words, source_in_words

__all__ = ["changes_in_words", "conditions_in_words", "rule_fills", "source_in_words"]
