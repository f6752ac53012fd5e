import { expect, it } from "vitest";

import { type Cases, comesTo } from "./formula-cases";

const path = import.meta.env["VITE_FORMULA_CASES"] as string | undefined;

it.runIf(path)("agrees with the service on formulas made by chance", async () => {
  const { default: given } = (await import(/* @vite-ignore */ path ?? "")) as { default: Cases };
  const disagreed = given.cases.flatMap((one) => {
    const found = comesTo(given, one);
    return JSON.stringify(found) === JSON.stringify(one.value) ? [] : [{ ...one, found }];
  });
  console.log(`${given.cases.length} formulas, ${disagreed.length} disagreements`);
  expect(disagreed.slice(0, 8).map(({ formula, values, value, found }) => ({ formula, values, value, found }))).toEqual([]);
}, 300_000);
