import { expect, test } from "vitest";

import { counted, duration, fileSize, megabytes, share } from "./formatting";

test("what is there but hardly is never said to be nothing", () => {
  expect(share(0, 10)).toBe("0 %");
  expect(share(1, 1_000_000)).toBe("under 0.1 %");
  expect(share(3, 0)).toBe("0 %");
  expect(share(123, 1000)).toBe("12.3 %");
});

test("figures carry their units", () => {
  expect(counted(1, "address", "addresses")).toBe("1 address");
  expect(counted(1200, "address", "addresses")).toBe("1,200 addresses");
  expect(megabytes(2_700_000)).toBe("2.7 MB");
  expect(fileSize(76)).toBe("76 bytes");
  expect(fileSize(2_700_000)).toBe("2.7 MB");
  expect(duration(0.2)).toBe("1 s");
  expect(duration(61)).toBe("1 min 1 s");
  expect(duration(59.7)).toBe("1 min 0 s");
  expect(duration(119.7)).toBe("2 min 0 s");
});
