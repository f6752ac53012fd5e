import { expect, it } from "vitest";

import { type Cases, comesTo, worked } from "./formula-cases";

const path = import.meta.env["VITE_FORMULA_CASES"] as string | undefined;

it.runIf(path)("agrees with the service on formulas made by chance", async () => {
  const { default: given } = (await import(/* @vite-ignore */ path ?? "")) as { default: Cases };
  const disagreed = given.cases.flatMap((one) => {
    const { value: found, left } = worked(given, one);
    return JSON.stringify(found) === JSON.stringify(one.value) && left === one.left ? [] : [{ ...one, found, here: left }];
  });
  console.log(`${given.cases.length} formulas, ${disagreed.length} disagreements`);
  const times: number[] = [];
  for (let first = 0; first + 100 <= given.cases.length; first += 100) {
    const began = performance.now();
    for (const one of given.cases.slice(first, first + 100)) comesTo(given, one);
    times.push(performance.now() - began);
  }
  times.sort((one, other) => one - other);
  const at = (share: number): string => (times[Math.floor(share * (times.length - 1))] ?? 0).toFixed(2).padStart(6);
  console.log(`a hundred at once: p50 ${at(0.5)}   p95 ${at(0.95)}`);
  expect(disagreed.slice(0, 8).map(({ formula, values, value, found, left, here }) => ({ formula, values, value, found, left, here }))).toEqual([]);
}, 300_000);
