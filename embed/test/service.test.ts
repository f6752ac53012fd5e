import { afterEach, describe, expect, it, vi } from "vitest";

import { type Connection, ServiceError, call, idempotencyKey, path } from "../src/service";

const here: Connection = { base: "http://a", headers: { Authorization: "Bearer k" } };

function answering(status: number, body: unknown): ReturnType<typeof vi.fn> {
  const text = typeof body === "string" ? body : JSON.stringify(body);
  const fetched = vi.fn(async () => new Response(text, { status }));
  vi.stubGlobal("fetch", fetched);
  return fetched;
}

afterEach(() => vi.unstubAllGlobals());

describe("calling the service", () => {
  it("sends a body as JSON with the caller's headers, and a question without one", async () => {
    const fetched = answering(200, { fine: true });
    await expect(call(here, "x", { body: { a: 1 } })).resolves.toEqual({ fine: true });
    await call(here, "y");
    const [posted, got] = fetched.mock.calls as unknown as [string, RequestInit][];
    expect(posted?.[0]).toBe("http://a/api/v1/x");
    expect(posted?.[1]).toMatchObject({
      method: "POST",
      body: '{"a":1}',
      headers: { Authorization: "Bearer k", "Content-Type": "application/json" },
    });
    expect(got?.[1].method).toBe("GET");
  });

  it("turns a problem into an error with its places", async () => {
    answering(422, { detail: "no", errors: [{ pointer: "/a", detail: "b" }] });
    const error = await call(here, "x").catch((e: unknown) => e);
    expect(error).toBeInstanceOf(ServiceError);
    expect(error).toMatchObject({ status: 422, message: "no", places: [{ pointer: "/a", detail: "b" }] });
  });

  it("says something also where the answer is no problem at all", async () => {
    answering(502, "<html>");
    await expect(call(here, "x")).rejects.toMatchObject({ status: 502, message: "The service answered 502." });
  });

  it("tells silence from a question that was cancelled", async () => {
    vi.stubGlobal("fetch", vi.fn(async () => Promise.reject(new TypeError("gone"))));
    await expect(call(here, "x")).rejects.toMatchObject({ status: 0 });
    const controller = new AbortController();
    controller.abort();
    await expect(call(here, "x", { signal: controller.signal })).rejects.toBeInstanceOf(TypeError);
  });
});

describe("addresses and keys", () => {
  it("escapes what is put into a path", () => {
    expect(path`forms/${"a/b?"}/slots/${"ü"}`).toBe("forms/a%2Fb%3F/slots/%C3%BC");
  });

  it("makes keys that differ and that the service takes", () => {
    const keys = new Set(Array.from({ length: 50 }, idempotencyKey));
    expect(keys.size).toBe(50);
    for (const key of keys) expect(key).toMatch(/^[!-~]{1,200}$/);
  });
});
