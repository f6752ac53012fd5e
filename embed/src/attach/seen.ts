/** What a page's fields are, as a target is proposed from them: never what stands in them. */

import type * as api from "../api";
import { textsOf } from "./controls/list";
import { lockOf } from "./controls/control";
import { radioOptions } from "./controls/radio";
import { holdersIn, isShown, typeOf } from "./holders";
import { blockOf, labelsOf } from "./labels";
import { piecesOf } from "./split-fields";
import { type Tree, treesIn } from "./trees";

type Seen = api.SeenFieldSchema;
const MOST_FIELDS = 200;
const MOST_OPTIONS = 400;
const LONGEST = 200;
/** Hidden inputs of a page's own making that hold no part of an address. */
const NO_ADDRESS = /csrf|token|nonce|utf8|session|viewstate|honeypot|_method|captcha/iu;

/** The fields of a page, in their order. */
export function seenFields(page: Tree): Seen[] {
  const all = [...treesIn(page)].flatMap((tree) => [...holdersIn(tree)]).filter(isAsked);
  const groups = piecesOf(all);
  const seen = groups.slice(0, MOST_FIELDS).map((group) => ({ ...described(group[0]!), ...(group.length > 1 ? { pieces: group.map(piece), max_length: null } : {}) }));
  return withPositions(seen);
}

/** Hidden inputs that a page keeps for itself are none of its fields. */
function isAsked(element: HTMLElement): boolean {
  if (typeOf(element) !== "hidden") return true;
  const name = `${element.getAttribute("name") ?? ""} ${element.id}`;
  return name.trim() !== "" && !NO_ADDRESS.test(name);
}

function described(element: HTMLElement): Seen {
  const type = typeOf(element) ?? "text";
  const options = optionsOf(element, type);
  const box = element.getBoundingClientRect();
  const view = element.ownerDocument.defaultView ?? window;
  return {
    type,
    name: short(element.getAttribute("name")),
    id: short(element.id),
    autocomplete: short(element.getAttribute("autocomplete")),
    class_name: short(element.classList.item(0)),
    label: short(labelsOf(element).find((label) => short(label))),
    is_named: true,
    placeholder: short(element.getAttribute("placeholder") ?? element.getAttribute("data-placeholder") ?? element.getAttribute("aria-placeholder")),
    block: short(blockOf(element)),
    position: 0,
    several_lines: element.localName === "textarea" || type === "region",
    options: options.slice(0, MOST_OPTIONS).map((option) => ({ value: short(option.value), text: short(option.text) })),
    max_length: longestOf(element),
    pieces: [],
    place: isShown(element)
      ? { left: Math.round(box.left + view.scrollX), top: Math.round(box.top + view.scrollY), width: Math.round(box.width), height: Math.round(box.height) }
      : null,
    is_whole: false,
    is_read_only: lockOf(element) !== "",
  };
}

function piece(element: HTMLElement): api.SeenPieceSchema {
  return { name: short(element.getAttribute("name")), id: short(element.id), max_length: longestOf(element), position: 0 };
}

function optionsOf(element: HTMLElement, type: string): { value: string; text: string }[] {
  if (element.localName === "select") return Array.from((element as HTMLSelectElement).options, textsOf);
  return type === "radio" ? radioOptions(element).map((one) => one.texts) : [];
}

function longestOf(element: HTMLElement): number | null {
  const longest = (element as HTMLInputElement).maxLength ?? -1;
  return longest > 0 && longest <= 10_000 ? longest : null;
}

/** Names that are there more than once: which of them each is, in its block where the blocks tell them apart. */
function withPositions(seen: Seen[]): Seen[] {
  const nameOf = (one: Seen): string => one.name || one.label || "";
  return seen.map((one, at) => {
    const alike = seen.filter((other) => nameOf(other) === nameOf(one));
    if (alike.length < 2 || !nameOf(one)) return { ...one, pieces: positioned(one.pieces ?? [], seen, at) };
    const inBlock = alike.filter((other) => other.block === one.block);
    return { ...one, position: (inBlock.length > 1 ? alike : inBlock).indexOf(one) + 1, block: inBlock.length > 1 ? "" : one.block };
  });
}

/** Of a split field: inputs of one name are told apart by their order on the page. */
function positioned(pieces: api.SeenPieceSchema[], seen: Seen[], at: number): api.SeenPieceSchema[] {
  const before = seen.slice(0, at).flatMap((one) => one.pieces ?? []);
  return pieces.map((one, place) => {
    const all = [...before, ...pieces.slice(0, place)].filter((other) => other.name === one.name).length;
    const isRepeated = all > 0 || [...pieces, ...seen.slice(at + 1).flatMap((later) => later.pieces ?? [])].filter((other) => other.name === one.name).length > 1;
    return one.name && isRepeated && !one.id ? { ...one, position: all + 1 } : one;
  });
}

/** A text as it is told of: in one line, without what stands behind labels, not too long. */
export function short(text: string | null | undefined): string {
  return (text ?? "").replace(/[\s\p{Cc}]+/gu, " ").replace(/[\s:*]+$/u, "").trim().slice(0, LONGEST);
}
