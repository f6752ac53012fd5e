"""How many edits two words are apart."""

import numpy as np
import numpy.typing as npt

def distance(typed: str, word: str, most: int, unfinished: bool) -> int:
    """Edits from a typed word to another, or to the nearest beginning of it if unfinished.

    Returns:
        At most `most` + 1, which stands for any greater distance, and for words of more than
        127 letters.
    """

def keys_one_edit_away(token: str) -> npt.NDArray[np.uint64]:
    """The keys, as `pools.WordPool` has them, of all texts one edit away from a token.

    Args:
        token: one to eight small letters and digits.

    Returns:
        Ascending, each once; texts of more than eight letters are left out.

    Raises:
        ValueError: the token is none of one to eight ASCII characters.
    """
