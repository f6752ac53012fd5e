"""How many edits two words are apart."""

def distance(typed: str, word: str, most: int, unfinished: bool) -> int:
    """Edits from a typed word to another, or to the nearest beginning of it if unfinished.

    Returns:
        At most `most` + 1, which stands for any greater distance, and for words of more than
        127 letters.
    """
