/** Where a folded text stands in another one whose characters may fold to several; as core/formula/occurrence.py has it. */

/** The place of the character with which a text begins, from 0; -1 where it does not stand. */
export function placeOfWhole(wanted: readonly string[], all: readonly string[], first: number): number {
  if (!wanted.length) return first;
  const borders = bordersOf(wanted);
  const beginsAt = new Map<number, number>();
  let [at, matched] = [0, 0];
  for (let place = first; place < all.length; place++) {
    beginsAt.set(at, place);
    for (const letter of all[place] ?? "") {
      while (matched === wanted.length || (matched && wanted[matched] !== letter)) matched = borders[matched - 1] ?? 0;
      if (wanted[matched] === letter) matched++;
      at++;
    }
    const begin = matched === wanted.length ? beginsAt.get(at - matched) : undefined;
    if (begin !== undefined) return begin;
  }
  return -1;
}

/** For each beginning of a text the length of its longest end that is a beginning as well. */
function bordersOf(text: readonly string[]): number[] {
  const borders = new Array<number>(text.length).fill(0);
  let length = 0;
  for (let place = 1; place < text.length; place++) {
    while (length && text[length] !== text[place]) length = borders[length - 1] ?? 0;
    if (text[length] === text[place]) length++;
    borders[place] = length;
  }
  return borders;
}
