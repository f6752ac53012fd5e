"""From the text of a formula to its tree."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any

from lark import Lark, Token, Transformer
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedInput, VisitError

from .tree import Call, Constant, FieldValue, Node, depth_of, walk

MOST_CHARACTERS = 4_000
MOST_NODES = 2_000
MOST_NESTED = 64
# Operators in a row lean on each other as parentheses do.
MOST_DEEP = 100


class FormulaError(Exception):
    """A formula that can never be worked out.

    Attributes:
        detail: what is wrong and what to do.
        at: where in the text, in characters from 0.
        length: how many characters it is about; 0 where something is missing.
    """

    def __init__(self, detail: str, at: int, length: int = 1) -> None:
        super().__init__(detail)
        self.detail, self.at, self.length = detail, at, length

    def pointed_out(self, text: str) -> str:
        """The line of the text that is meant, with a caret below the place."""
        start = text.rfind("\n", 0, self.at) + 1
        end = text.find("\n", self.at)
        line = text[start : end if end >= 0 else len(text)]
        return f"{line}\n{' ' * (self.at - start)}{'^' * max(1, self.length)}"


@dataclass(frozen=True)
class Parsed:
    """A tree whose names are not looked at yet, and the text that it came from."""

    tree: Node
    text: str


@lru_cache(maxsize=4096)  # a form is read whenever it is opened
def parse(text: str) -> Parsed:
    """The tree of a formula, with or without `=` at its beginning; names stand for fields.

    Raises:
        FormulaError: it is no formula, too long or nested too deeply.
    """
    if len(text) > MOST_CHARACTERS:
        detail = f"A formula has at most {MOST_CHARACTERS:,} characters; this has {len(text):,}."
        raise FormulaError(detail, MOST_CHARACTERS, 0)
    if not text.strip().removeprefix("=").strip():
        raise FormulaError("There is no formula yet: write one like =ROUND(price * 1.2; 2).", 0, 0)
    _hold_depth(text)
    try:
        tree: Node = _Reader().transform(_parser().parse(text))
    except UnexpectedInput as error:
        raise _unexpected(text, error) from None
    except VisitError as error:
        if isinstance(error.orig_exc, FormulaError):
            raise error.orig_exc from None
        raise
    if sum(1 for _ in walk(tree)) > MOST_NODES or depth_of(tree) > MOST_DEEP:
        detail = "This formula has too many parts in a row: work some out in fields, or use SUM."
        raise FormulaError(detail, 0, 0)
    return Parsed(tree, text)


def _hold_depth(text: str) -> None:
    depth, quoted = 0, ""
    signs = 0
    for place, character in enumerate(text):
        if quoted:
            quoted = "" if character == quoted else quoted
            continue
        if character in "\"'":
            quoted = character
        depth += (character == "(") - (character == ")")
        signs = signs + 1 if character in "+-" else signs if character.isspace() else 0
        if depth > MOST_NESTED or signs > MOST_NESTED:
            detail = f"Parentheses are nested more than {MOST_NESTED} deep here."
            raise FormulaError(detail, place)


@cache
def _parser() -> Lark:
    grammar = files(__package__).joinpath("grammar.lark").read_text("utf-8")
    return Lark(grammar, parser="lalr", maybe_placeholders=False)


class _Reader(Transformer[Token, Any]):
    """Makes nodes of lark's trees."""

    def start(self, parts: list[Any]) -> Node:
        (node,) = parts
        return node  # type: ignore[no-any-return]

    def number(self, parts: list[Token]) -> Node:
        value = float(parts[0])
        if value == float("inf"):
            raise FormulaError("This number is too large.", _at(parts[0]), len(parts[0]))
        return Constant(value, _at(parts[0]))

    def text(self, parts: list[Token]) -> Node:
        return Constant(parts[0][1:-1].replace('""', '"'), _at(parts[0]))

    def name(self, parts: list[Token]) -> Node:
        word = parts[0].upper()
        if word in ("TRUE", "FALSE"):
            return Constant(word == "TRUE", _at(parts[0]))
        return FieldValue(str(parts[0]), _at(parts[0]))

    def quoted(self, parts: list[Token]) -> Node:
        return FieldValue(str(parts[0][1:-1]), _at(parts[0]))

    def argument(self, parts: list[Any]) -> Node:
        return parts[0] if parts else Constant(None)

    def arguments(self, parts: list[Any]) -> list[Node]:
        left_empty = len(parts) == 1 and parts[0] == Constant(None)
        return [] if left_empty else parts

    def call(self, parts: list[Any]) -> Node:
        return Call(parts[0].upper(), tuple(parts[1] if len(parts) > 1 else ()), _at(parts[0]))

    def prefixed(self, parts: list[Any]) -> Node:
        sign, node = parts
        return (
            Call("NEGATE", (node,), _at(sign)) if sign == "-" else Call("PLUS", (node,), _at(sign))
        )

    def percent(self, parts: list[Any]) -> Node:
        node = parts[0]
        for sign in parts[1:]:
            node = Call("PERCENT", (node,), _at(sign))
        return node  # type: ignore[no-any-return]

    def _from_left(self, parts: list[Any]) -> Node:
        node = parts[0]
        for sign, other in zip(parts[1::2], parts[2::2], strict=True):
            node = Call(str(sign), (node, other), _at(sign))
        return node  # type: ignore[no-any-return]

    comparison = joined = sum = product = power = _from_left


def _at(token: Token) -> int:
    return token.start_pos or 0


_MEANT = {
    "==": "Write = to compare.",
    "!=": "Write <> for “is not”.",
    "&&": "Write AND(…; …).",
    "||": "Write OR(…; …).",
}


def _unexpected(text: str, error: UnexpectedInput) -> FormulaError:
    at = error.pos_in_stream
    if isinstance(error, UnexpectedEOF) or at is None or at < 0 or at >= len(text):
        return FormulaError(_at_end(text), len(text.rstrip()), 0)
    token = getattr(error, "token", None)
    if isinstance(token, Token) and token.type == "$END":
        return FormulaError(_at_end(text), len(text.rstrip()), 0)
    for wrong, advice in _MEANT.items():
        if wrong in text[max(0, at - 1) : at + 2]:
            return FormulaError(advice, text.index(wrong, max(0, at - 1)), 2)
    if isinstance(error, UnexpectedCharacters):
        character = text[at]
        if character == '"' and '"' not in text[at + 1 :]:
            return FormulaError(_at_end(text), len(text), 0)
        if character in "\"“”„'":
            detail = 'Put texts between two straight quotation marks: "like this".'
            return FormulaError(detail, at)
        return FormulaError(f"“{character}” means nothing in a formula.", at)
    said = str(token)
    if said == ")":
        return FormulaError("This parenthesis closes none, or something is missing before it.", at)
    return FormulaError(
        f"“{said}” cannot stand here; perhaps an operator or a ; is missing.", at, len(said)
    )


def _at_end(text: str) -> str:
    if text.count('"') % 2:
        return "A text is not closed: put a quotation mark at its end."
    missing = text.count("(") - text.count(")")
    if missing > 0:
        return "The formula ends too soon: a ) is missing."
    return "The formula ends too soon: something is missing here."
