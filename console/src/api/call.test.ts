import { afterEach, describe, expect, it, vi } from "vitest";

import { ServiceError, call, callWithEtag, rememberCsrfToken } from "./call";

function answering(status: number, body: string | null, headers: Record<string, string> = {}) {
  const fetched = vi.fn(async (_path: string, _init: RequestInit) => new Response(body, { status, headers }));
  vi.stubGlobal("fetch", fetched);
  return fetched;
}

afterEach(() => {
  vi.unstubAllGlobals();
  rememberCsrfToken("");
});

describe("calling the service as the person who is signed in", () => {
  it("sends the session's token with every change, and the ETag of what is changed", async () => {
    const fetched = answering(200, '{"fine":true}', { ETag: '"2"' });
    rememberCsrfToken("token");
    const answer = await callWithEtag("forms/venue/draft", { method: "PUT", body: { a: 1 }, etag: '"1"' });
    expect(answer).toEqual({ body: { fine: true }, etag: '"2"' });
    expect(fetched.mock.calls[0]).toEqual([
      "/api/v1/forms/venue/draft",
      {
        method: "PUT",
        body: '{"a":1}',
        headers: { "X-CSRF-Token": "token", "Content-Type": "application/json", "If-Match": '"1"' },
        signal: expect.any(AbortSignal) as unknown,
      },
    ]);
  });

  it("sends a question without a body and without a type", async () => {
    const fetched = answering(200, "[]");
    await call("forms");
    expect(fetched.mock.calls[0]?.[1]).toEqual({
      method: "GET",
      headers: { "X-CSRF-Token": "" },
      signal: expect.any(AbortSignal) as unknown,
    });
  });

  it("takes an answer without a body for nothing", async () => {
    answering(204, null);
    await expect(call("session", { method: "DELETE" })).resolves.toBeUndefined();
  });

  it("turns a problem into an error with its places", async () => {
    const places = [{ pointer: "/slots/0", detail: "This is needed." }];
    answering(422, JSON.stringify({ detail: "The request has 1 problem.", errors: places }));
    const refused = await call("forms").catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(ServiceError);
    expect(refused).toMatchObject({ status: 422, message: "The request has 1 problem.", places });
  });

  it("says something where the answer is no problem, and where nothing answers", async () => {
    answering(502, "<html>");
    await expect(call("forms")).rejects.toMatchObject({ status: 502, message: "The service answered 502." });
    vi.stubGlobal("fetch", vi.fn(() => Promise.reject(new TypeError("offline"))));
    await expect(call("forms")).rejects.toMatchObject({
      status: 0,
      message: "The service does not answer.",
    });
  });
});
