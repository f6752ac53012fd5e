import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { rememberCsrfToken } from "../api/call";
import { sendFile } from "./upload";

/** What the browser's own would do, at the word of a test. */
class Request {
  static last: Request;
  readonly headers: Record<string, string> = {};
  readonly upload: { onprogress?: (event: { loaded: number; total: number }) => void } = {};
  opened: string[] = [];
  sent: unknown;
  status = 0;
  response: unknown = null;
  onload: () => void = () => undefined;
  onerror: () => void = () => undefined;

  constructor() {
    Request.last = this;
  }
  open(method: string, url: string): void {
    this.opened = [method, url];
  }
  setRequestHeader(name: string, value: string): void {
    this.headers[name] = value;
  }
  send(body: unknown): void {
    this.sent = body;
  }
  answer(status: number, response: unknown): void {
    Object.assign(this, { status, response });
    this.onload();
  }
}

const FILE = new File(["id,country_code\n"], "uk & more.csv");

beforeEach(() => {
  vi.stubGlobal("XMLHttpRequest", Request);
  rememberCsrfToken("token");
});
afterEach(() => vi.unstubAllGlobals());

describe("sending a file", () => {
  it("names the file and what is to become of it, under a key of its own", async () => {
    const job = sendFile("a/b", FILE, { changes: true, activate: "never" }, () => undefined);
    const { opened, headers, sent } = Request.last;
    expect(opened).toEqual([
      "POST",
      "/api/v1/datasets/a%2Fb/editions?name=uk+%26+more.csv&activate=never&changes=true",
    ]);
    expect(headers).toMatchObject({ "X-CSRF-Token": "token", "Content-Type": "application/octet-stream" });
    expect(headers["Idempotency-Key"]).toMatch(/^[0-9a-f-]{36}$/);
    expect(sent).toBe(FILE);
    Request.last.answer(202, { id: "j1" });
    await expect(job).resolves.toEqual({ id: "j1" });
  });

  it("says how much has been sent, also where the size is not known", () => {
    const told: number[] = [];
    void sendFile("uk", FILE, { changes: false, activate: "rule" }, (share) => told.push(share));
    Request.last.upload.onprogress?.({ loaded: 5, total: 20 });
    Request.last.upload.onprogress?.({ loaded: 5, total: 0 });
    expect(told).toEqual([0.25, 0]);
    expect(Request.last.opened[1]).not.toContain("changes");
  });

  it.each([
    [{ detail: "The request has 1 problem.", errors: [{ pointer: "?base", detail: "No such edition." }] }, "No such edition."],
    [{ detail: "The dataset is being removed." }, "The dataset is being removed."],
    [null, "The service answered 413."],
  ])("says why a file was refused: %j", async (body, said) => {
    const job = sendFile("uk", FILE, { changes: false, activate: "rule" }, () => undefined);
    Request.last.answer(413, body);
    await expect(job).rejects.toMatchObject({ status: 413, message: said });
  });

  it("says that the connection broke", async () => {
    const job = sendFile("uk", FILE, { changes: false, activate: "rule" }, () => undefined);
    Request.last.onerror();
    await expect(job).rejects.toMatchObject({ status: 0, message: "The file could not be sent: the connection broke." });
  });
});
