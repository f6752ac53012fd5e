import { beforeEach, expect, it } from "vitest";

import { type Answer, ServiceError } from "../../api/call";
import type { Draft, FormDocument } from "../../api/schemas";
import { FORM } from "../../forms/kind";
import { DraftKeeper, type Stashed } from "./keeper";

const form = (title: string, more = {}) => ({ key: "f", kind: "web", title, fields: [], slots: [], ...more }) as unknown as FormDocument;
const answer = (document: FormDocument, revision: number): Answer<Draft> =>
  ({ body: { document, summary: {}, problems: [], logic: { order: [] }, brought: {} }, etag: `"${revision}"` }) as unknown as Answer<Draft>;
const settled = () => new Promise((done) => setTimeout(done));

let sent: [string, string | null][];
let server: Answer<Draft>;
let failing: Error | null;
let waiting: (() => void)[];
let stashed: Stashed<FormDocument> | null;
let came: string[];
let keeper: DraftKeeper<FormDocument, Draft>;

beforeEach(() => {
  [sent, failing, waiting, stashed, came] = [[], null, [], null, []];
  server = answer(form("A"), 1);
  keeper = new DraftKeeper<FormDocument, Draft>(server, FORM, {
    put: async (document, etag) => {
      sent.push([document.title, etag]);
      if (failing) throw failing;
      if (etag !== server.etag) throw new ServiceError(412, "changed");
      server = answer(document, Number(server.etag?.replaceAll('"', "")) + 1);
      return server;
    },
    get: async () => server,
    stash: (left) => void (stashed = left),
    changed: () => undefined,
    cameIn: (document) => void came.push(document.title),
    later: (work) => {
      waiting.push(work);
      return () => void (waiting = waiting.filter((one) => one !== work));
    },
  });
});

const pause = async () => {
  const works = waiting;
  waiting = [];
  for (const work of works) work();
  await settled();
};

it("keeps what was typed last, once a pause is made", async () => {
  keeper.take(form("AB"));
  keeper.take(form("ABC"));
  expect([keeper.state.status, stashed?.document.title]).toEqual(["waiting", "ABC"]);
  await pause();
  expect(sent).toEqual([["ABC", '"1"']]);
  expect([keeper.state.status, stashed, keeper.kept.etag]).toEqual(["kept", null, '"2"']);
});

it("keeps what was typed while it was being kept, too", async () => {
  keeper.take(form("AB"));
  const keeping = keeper.now();
  keeper.take(form("ABC"));
  await keeping;
  await pause();
  expect(sent.map(([title]) => title)).toEqual(["AB", "ABC"]);
  expect([keeper.state.status, stashed]).toEqual(["kept", null]);
});

it("goes on trying while nothing answers, and loses nothing", async () => {
  failing = new ServiceError(0, "silent");
  keeper.take(form("AB"));
  await pause();
  expect([keeper.state.status, stashed?.document.title]).toEqual(["offline", "AB"]);
  failing = null;
  await pause();
  expect([keeper.state.status, server.body.document.title, stashed]).toEqual(["kept", "AB", null]);
});

it("waits for somebody to sign in again, whatever is typed meanwhile", async () => {
  failing = new ServiceError(401, "who?");
  keeper.take(form("AB"));
  await pause();
  keeper.take(form("ABC"));
  expect([keeper.state.status, waiting.length]).toEqual(["signed-out", 0]);
  failing = null;
  keeper.retry();
  await pause();
  expect(server.body.document.title).toBe("ABC");
});

it("says what the service does not take, and tries what is typed next", async () => {
  failing = new ServiceError(422, "no", [{ pointer: "/title", detail: "too long" } as never]);
  keeper.take(form("AB"));
  await pause();
  expect(keeper.state).toMatchObject({ status: "refused", places: [{ detail: "too long" }] });
  failing = null;
  keeper.take(form("AC"));
  await pause();
  expect(keeper.state.status).toBe("kept");
});

it("puts another's change beside its own", async () => {
  server = answer(form("A", { intro: "theirs" }), 7);
  keeper.take(form("AB"));
  await pause();
  await pause();
  expect(server.body.document).toMatchObject({ title: "AB", intro: "theirs" });
  expect([keeper.state.status, came]).toEqual(["kept", ["AB"]]);
});

it("asks where both have changed the same, and goes on as was chosen", async () => {
  server = answer(form("Theirs"), 7);
  keeper.take(form("Mine"));
  await pause();
  expect(keeper.state).toMatchObject({ status: "conflict", conflicts: [{ setting: "title", mine: "Mine", theirs: "Theirs" }] });
  expect(stashed?.document.title).toBe("Mine");
  keeper.resolve(new Set());
  await pause();
  expect([server.body.document.title, keeper.state.status]).toEqual(["Mine", "kept"]);
});

it("takes in what somebody else has kept while nothing is typed here", async () => {
  server = answer(form("Theirs"), 7);
  await keeper.catchUp();
  expect([came, keeper.state.status, keeper.kept.etag]).toEqual([["Theirs"], "kept", '"7"']);
});

it("does not say that anything came in where somebody has only published what is here", async () => {
  const { document } = keeper.kept.body;
  server = answer(form("A"), 7);
  await keeper.catchUp();
  expect([came, keeper.kept.etag, keeper.kept.body.document === document]).toEqual([[], '"7"', true]);
});

it("settles: nothing is left to be kept, or it is said that something is", async () => {
  keeper.take(form("AB"));
  const keeping = keeper.now();
  keeper.take(form("ABC"));
  expect(await keeper.settle()).toBe(true);
  await keeping;
  expect([server.body.document.title, stashed]).toEqual(["ABC", null]);
  failing = new ServiceError(0, "silent");
  keeper.take(form("ABCD"));
  expect(await keeper.settle()).toBe(false);
});
