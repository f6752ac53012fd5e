import { expect, it } from "vitest";

import { Pace } from "../src/attach/pace";

it("takes twenty messages at once, and three a second after that", () => {
  const pace = new Pace(0);
  const taken = (count: number, at: number): number => Array.from({ length: count }, () => pace.takes(at)).filter(Boolean).length;
  expect(taken(500, 0)).toBe(20);
  expect(taken(500, 1000)).toBe(3);
  expect(taken(1, 1000)).toBe(0);
  expect(taken(500, 61_000)).toBe(20);
});
