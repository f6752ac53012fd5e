import { expect, test } from "vitest";

import cases from "../../tests/vectors/paths.json";
import { matchesPath } from "../src/attach/paths";

test.each(cases as [string, string, boolean][])("the pattern %s and the path %s: %s", (pattern, path, matches) => {
  expect(matchesPath(pattern, path)).toBe(matches);
});
