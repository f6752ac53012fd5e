/** Calling the service: timeouts, and problems as one kind of error. */

import type * as api from "./api";

export type Suggestion = api.SuggestionSchema;
/** Of an answer of the finder, what the elements work with. */
export type Suggestions = Pick<api.Suggestions, "suggestions" | "corrected" | "unmatched" | "after">;
/** One address, as `GET /addresses/ID` answers it. */
export type Address = api.AddressAnswer;
export type FillAnswer = api.FillAnswer;
export type Place = api.ProblemPlace;

/** Anything that kept an answer from coming; `status` 0 where nothing answered at all. */
export class ServiceError extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly places: Place[] = [],
  ) {
    super(detail);
  }
}

export interface Connection {
  /** The service's address, without a slash at its end; empty for the page's own. */
  base: string;
  /** Headers that say who calls. */
  headers: Record<string, string>;
}

/** An element's connection: the one it was given, or that of its attributes. */
export function connectionOf(element: HTMLElement & { connection: Connection | null }): Connection {
  const access = element.getAttribute("access");
  return (
    element.connection ?? {
      base: element.getAttribute("base") ?? "",
      headers: access ? { Authorization: `Bearer ${access}` } : {},
    }
  );
}

const LONGEST_WAIT_MS = 8000;

export interface CallOptions {
  /** POST where there is a body, else GET. */
  method?: "GET" | "POST" | "PUT" | "DELETE";
  body?: unknown;
  signal?: AbortSignal;
  headers?: Record<string, string>;
}

export interface Answer<Body> {
  body: Body;
  etag: string | null;
}

/** Calls `/api/v1/PATH` and returns the JSON of the answer, undefined where there is none, with its ETag. */
export async function callWithEtag<Body>(
  connection: Connection,
  path: string,
  options: CallOptions = {},
): Promise<Answer<Body>> {
  const timeout = AbortSignal.timeout(LONGEST_WAIT_MS);
  const signal = options.signal ? AbortSignal.any([options.signal, timeout]) : timeout;
  const sends = options.body !== undefined;
  let response: Response;
  try {
    response = await fetch(`${connection.base}/api/v1/${path}`, {
      method: options.method ?? (sends ? "POST" : "GET"),
      headers: {
        ...connection.headers,
        ...options.headers,
        ...(sends ? { "Content-Type": "application/json" } : {}),
      },
      ...(sends ? { body: JSON.stringify(options.body) } : {}),
      signal,
    });
  } catch (error) {
    if (options.signal?.aborted) throw error;
    throw new ServiceError(0, "The service does not answer.");
  }
  if (response.status === 204) return { body: undefined as Body, etag: null };
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok) throw refusal(response.status, answer);
  return { body: answer as Body, etag: response.headers.get("ETag") };
}

/** Calls `/api/v1/PATH` and returns the JSON of the answer. */
export async function call<Body>(connection: Connection, path: string, options: CallOptions = {}): Promise<Body> {
  return (await callWithEtag<Body>(connection, path, options)).body;
}

/** The error of an answer that is a problem (RFC 9457), or none at all. */
export function refusal(status: number, body: unknown): ServiceError {
  const problem = (body ?? {}) as Partial<api.ProblemAnswer>;
  return new ServiceError(status, problem.detail ?? `The service answered ${status}.`, problem.errors ?? []);
}

/** Statuses of a service that is away for a moment; 0 where nothing answered. */
const AWAY = [0, 502, 503, 504];
const PAUSES_MS = [1000, 2000, 4000];

/** Does a call that does no harm when it is done again, and again after pauses while nobody answers. */
export async function insistently<Answer>(
  calling: () => Promise<Answer>,
  waiting: () => void = () => undefined,
): Promise<Answer> {
  for (const pause of PAUSES_MS) {
    try {
      return await calling();
    } catch (error) {
      if (!(error instanceof ServiceError) || !AWAY.includes(error.status)) throw error;
      waiting();
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
  return calling();
}

/** A path with its parts escaped: path`forms/${key}`. */
export function path(texts: TemplateStringsArray, ...parts: string[]): string {
  return texts.reduce((all, text, i) => all + encodeURIComponent(parts[i - 1] ?? "") + text);
}

/** A key that makes repeated sending of one request harmless; also where pages are plain http. */
export function idempotencyKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, "0")).join("");
}
