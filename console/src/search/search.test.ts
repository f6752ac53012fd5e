import { afterEach, expect, test, vi } from "vitest";

import { search } from "./search";

function answering(status: number, body: unknown) {
  const fetched = vi.fn(async (_path: string) => new Response(JSON.stringify(body), { status }));
  vi.stubGlobal("fetch", fetched);
  return fetched;
}

afterEach(() => vi.unstubAllGlobals());

test("a search asks for its trace and says how long it took", async () => {
  const fetched = answering(200, { suggestions: [], edition: "demo@1" });
  const found = await search(new URLSearchParams({ q: "kiln" }));
  expect(fetched.mock.calls[0]?.[0]).toBe("/api/v1/suggest?q=kiln&trace=true&limit=12");
  expect(found.answer.edition).toBe("demo@1");
  expect(found.milliseconds).toBeGreaterThanOrEqual(0);
});

test("what is wrong with a search is said by the names of its boxes", async () => {
  const errors = [
    { pointer: "?near", detail: "Give latitude and longitude." },
    { pointer: "?country", detail: "There is no country 'XX'." },
  ];
  answering(422, { detail: "The request has 2 problems; see errors.", errors });
  await expect(search(new URLSearchParams())).rejects.toMatchObject({
    status: 422,
    message: "near: Give latitude and longitude. country: There is no country 'XX'.",
  });
});

test("another refusal is said as it is", async () => {
  answering(404, { detail: "There is no group 'demo:~1'." });
  await expect(search(new URLSearchParams())).rejects.toMatchObject({ message: "There is no group 'demo:~1'." });
});
