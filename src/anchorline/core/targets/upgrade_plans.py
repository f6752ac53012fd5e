"""Programs of the first format: the table of a plan becomes fields, and rules that write them.

A field of the screen took parts in a row, with a new line, a comma or a blank between them. Now it
is one field, and what was written into its parts is put behind what is there.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

Entry = dict[str, Any]
_SIGNS = {"nothing": "", "blank": " ", "comma": ", ", "line": "\n", "next": ""}
_PUTS = ("write", "type", "paste")


@dataclass
class _Box:
    """A field of the screen as a plan's table had it: rows up to `next`."""

    rows: list[Entry]
    further: int = 1
    key: str = ""

    @property
    def parts(self) -> list[str]:
        return [row["part"] for row in self.rows]

    @property
    def takes_lines(self) -> bool:
        between = [row.get("then") or "next" for row in self.rows[:-1]]
        return "line" in between or (self.rows[0].get("clear") == "box")

    def sign_before(self, part: str) -> str:
        at = self.parts.index(part)
        return _SIGNS[self.rows[at - 1].get("then") or "next"] if at else ""


@dataclass
class _Fields:
    """The fields so far, by key; a part that two addresses write differently is two of them."""

    parts: Mapping[str, Entry]
    made: dict[str, Entry] = field(default_factory=dict)

    def of(self, box: _Box) -> str:
        """The key of the field that a box is."""
        first, labels = box.rows[0], [self._part(name).get("label") for name in box.parts]
        own = self._part(first["part"])
        entry: Entry = {"label": labels[0]} if labels[0] else {}
        if len(box.rows) > 1:
            entry = {"label": first.get("field") or _stem(labels[0] or "") or "Address"}
        if box.takes_lines:
            entry["several_lines"] = True
        elif len(box.rows) == 1 and own.get("max_length"):
            entry["max_length"] = own["max_length"]
        if first.get("field"):
            entry["name"] = first["field"]
        if box.further != 1:
            entry["further"] = box.further
        usual, empty = ("box" if box.takes_lines else "line"), first.get("clear") or "line"
        if empty != usual:
            entry["empty"] = empty
        wanted = first["part"] if len(box.rows) == 1 else _stem(first["part"]) or first["part"]
        return self.add(wanted, entry)

    def add(self, wanted: str, entry: Entry) -> str:
        """Adds a field; returns its key."""
        key, number = wanted, 2
        while key in self.made and self.made[key] != {"key": key, **entry}:
            key, number = f"{wanted}-{number}", number + 1
        self.made[key] = {"key": key, **entry}
        return key

    def _part(self, key: str) -> Entry:
        return dict(self.parts.get(key) or {"key": key})


def with_fields(document: Mapping[str, Any]) -> Entry:
    """A program target of the first format as one of today."""
    parts: dict[str, Entry] = {one["key"]: dict(one) for one in document.get("parts") or ()}
    fields = _Fields(parts)
    addresses = [_address(one, fields) for one in document.get("addresses") or ()]
    kept = {name: value for name, value in document.items() if name not in ("parts", "addresses")}
    written = {key for one in addresses for key in one.pop("_parts")}
    for key, part in parts.items():
        if key not in written and key not in fields.made:
            # Nothing writes it: it waits for somebody who does.
            fields.made[key] = {**part, "where": "nowhere"}
    return {**kept, "fields": list(fields.made.values()), "addresses": addresses}


def _address(address: Mapping[str, Any], fields: _Fields) -> Entry:
    plan = dict(address.get("plan") or {})
    steps = list(plan.pop("steps", None) or ())
    boxes = list(_boxes(plan.pop("table", None) or ()))
    kept_back = set(plan.pop("not_offered", None) or ())
    for box in boxes:
        box.key = fields.of(box)
    field_of = {part: box.key for box in boxes for part in box.parts}
    by_steps = [step["part"] for step in steps if step.get("do") in _PUTS and step.get("part")]
    others = dict.fromkeys([*by_steps, *_written(address.get("mapping") or ())])
    for part in others:
        if part not in field_of:
            where = "screen" if part in by_steps else "nowhere" if part in kept_back else "offered"
            own = {**fields.parts.get(part, {}), **({} if where == "screen" else {"where": where})}
            field_of[part] = fields.add(part, {n: v for n, v in own.items() if n != "key"})
    made = {name: value for name, value in address.items() if name != "plan"}
    if address.get("mapping"):
        shared = {part: box for box in boxes if len(box.rows) > 1 for part in box.parts}
        lengths = {
            key: one["max_length"] for key, one in fields.parts.items() if one.get("max_length")
        }
        made["mapping"] = _Rules(shared, field_of, lengths).of(address["mapping"])
    if address.get("examples"):
        made["examples"] = [_example(one, boxes, field_of) for one in address["examples"]]
    if steps:
        plan["steps"] = [step for one in steps for step in _step(one, field_of)]
    return made | ({"writing": plan} if plan else {}) | {"_parts": set(field_of)}


def _boxes(table: Sequence[Mapping[str, Any]]) -> Iterator[_Box]:
    rows: list[Entry] = []
    further = 1
    for row in table:
        rows.append(dict(row))
        if (row.get("then") or "next") == "next":
            yield _Box(rows, further)
            rows, further = [], row.get("times") or 1
    if rows:
        yield _Box(rows, further)


def _written(mapping: Sequence[Mapping[str, Any]]) -> Iterator[str]:
    for rule in mapping:
        if rule.get("fit"):
            yield from rule["fit"]["into"]
            if rule["fit"].get("overflow"):
                yield rule["fit"]["overflow"]
        elif rule.get("into"):
            yield rule["into"]


@dataclass
class _Rules:
    """The rules of one address, as they write fields in place of parts.

    Attributes:
        shared: by its key, the field of each part that shares one with others.
        field_of: the keys of fields by those of their parts.
        lengths: of parts, where they say it.
        begun: keys of shared fields into which a rule before has written.
    """

    shared: Mapping[str, _Box]
    field_of: Mapping[str, str]
    lengths: Mapping[str, int]
    begun: set[str] = field(default_factory=set)

    def of(self, mapping: Sequence[Mapping[str, Any]]) -> list[Entry]:
        """The rules in the order in which their texts stand in the fields."""
        chains: list[list[Mapping[str, Any]]] = []
        for rule in mapping:
            # What holds only where the rules above it do not stays below them.
            if rule.get("otherwise") and chains:
                chains[-1].append(rule)
            else:
                chains.append([rule])
        # Only among those of one field the order is changed: what takes the rest goes by it too.
        for box in {id(one): one for one in self.shared.values()}.values():
            own = [at for at, chain in enumerate(chains) if self.shared.get(_first(chain)) is box]
            order = {at: box.parts.index(_first(chains[at])) for at in own}
            by_place = [chains[at] for at in sorted(own, key=order.__getitem__)]
            for at, chain in zip(own, by_place, strict=True):
                chains[at] = chain
        return [self._rule(dict(rule)) for chain in chains for rule in chain]

    def _rule(self, rule: Entry) -> Entry:
        if rule.get("fit"):
            return self._fit(rule)
        part = rule.get("into") or ""
        box = self.shared.get(part)
        if not part:
            return rule
        made = {**rule, "into": self.field_of.get(part, part)}
        if box is None:
            return made
        length = self.lengths.get(part)
        if length and "shorten" in (rule.get("changes") or ()):
            shorter = {"shorten": {"to": length}}
            made["changes"] = [shorter if one == "shorten" else one for one in rule["changes"]]
        if rule.get("if_written") == "leave":
            # It was left where an earlier rule had written the part; the field has others as well.
            made["otherwise"] = True
        keeps = any(row["part"] == part and row.get("keep") for row in box.rows)
        if box.key in self.begun:
            made = _behind(made, box.sign_before(part))
        elif not keeps:
            made.pop("if_written", None)
        if keeps:
            made |= {"if_written": "append", "keeps_place": True}
        self.begun.add(box.key)
        return made

    def _fit(self, rule: Entry) -> Entry:
        fit: Entry = dict(rule["fit"])
        parts: list[str] = fit["into"]
        keys = list(dict.fromkeys(self.field_of.get(part, part) for part in parts))
        made: Entry = {**fit, "into": keys}
        if fit.get("overflow"):
            made["overflow"] = self.field_of.get(fit["overflow"], fit["overflow"])
        box = self.shared.get(parts[0])
        if box is None or len(keys) > 1:
            return {**rule, "fit": made}
        if box.takes_lines:
            made |= {"lines": len(parts), "fewest": True}
            widths = [fit.get("width"), *(self.lengths.get(part) for part in parts)]
            given = [width for width in widths if width]
            if given:
                made["width"] = min(given)
        else:
            made.pop("width", None)
            sign = box.sign_before(parts[1] if len(parts) > 1 else parts[0])
            if sign != ", ":
                made["join"] = sign
        changed: Entry = {**rule, "fit": made}
        if box.key in self.begun:
            changed |= {"if_written": "append", "join": box.sign_before(parts[0])}
        self.begun.add(box.key)
        return changed


def _first(chain: Sequence[Mapping[str, Any]]) -> str:
    """The first part that some rules write."""
    return next(_written(chain), "")


def _behind(rule: Entry, sign: str) -> Entry:
    """A rule whose text is put behind what is there, after a sign."""
    inner = rule.get("components")
    if inner and len(inner) > 1 and rule.get("join", " ") != sign:
        # What joins its components has a group of its own.
        group: Entry = {"components": inner}
        if rule.get("join") is not None:
            group["join"] = rule["join"]
        rule = {**rule, "components": [group]}
    return {**rule, "if_written": "append", "join": sign}


def _example(
    example: Mapping[str, Any], boxes: Sequence[_Box], field_of: Mapping[str, str]
) -> Entry:
    values: dict[str, str] = {}
    given: Mapping[str, str] = example.get("values") or {}
    for box in boxes:
        text, due = "", ""
        for row in box.rows:
            if row["part"] not in given:
                continue
            wanted = given[row["part"]]
            if wanted:
                text += (due if text else "") + wanted
                due = _SIGNS[row.get("then") or "next"]
            values[box.key] = text
    rest = {field_of.get(key, key): text for key, text in given.items()}
    return {**example, "values": {**rest, **values}}


def _step(step: Mapping[str, Any], field_of: Mapping[str, str]) -> Iterator[Entry]:
    """A step, and the sign that came after what it wrote."""
    made = {name: value for name, value in step.items() if name not in ("part", "then", "keep")}
    part = step.get("part") or ""
    if made.get("when"):
        made["when"] = field_of.get(made["when"], made["when"])
    if part:
        made["field"] = field_of.get(part, part)
    yield made
    then, keeps = step.get("then") or "nothing", step.get("keep")
    if step.get("do") in _PUTS and _SIGNS.get(then):
        when = {} if keeps or not part else {"when": field_of.get(part, part)}
        if then == "line":
            yield {"do": "line_break", **when}
        else:
            yield {"do": step["do"], "text": _SIGNS[then], **when}


def _stem(text: str) -> str:
    """A text without the number at its end."""
    return text.rstrip("0123456789").rstrip(" -_")
