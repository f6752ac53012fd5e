/** Calling the service as the person who is signed in. */

import type { Place } from "../../../embed/src/service";

export type { Place };

/** A refusal or a failure; status 0 where nothing answered. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly places: Place[] = [],
  ) {
    super(detail);
  }
}

let csrfToken = "";

/** Kept from the session's answer; sent with every change. */
export function rememberCsrfToken(token: string): void {
  csrfToken = token;
}

/** Headers with which the embedded form acts for the person. */
export function sessionHeaders(): Record<string, string> {
  return { "X-CSRF-Token": csrfToken };
}

export interface Answer<Body> {
  body: Body;
  etag: string | null;
}

interface Options {
  method?: "GET" | "POST" | "PUT" | "DELETE";
  body?: unknown;
  etag?: string | null;
}

/** Calls `/api/v1/PATH` and returns the body with its ETag. */
export async function callWithEtag<Body>(path: string, options: Options = {}): Promise<Answer<Body>> {
  let response: Response;
  try {
    response = await fetch(`/api/v1/${path}`, {
      method: options.method ?? "GET",
      headers: {
        ...sessionHeaders(),
        ...(options.body === undefined ? {} : { "Content-Type": "application/json" }),
        ...(options.etag ? { "If-Match": options.etag } : {}),
      },
      ...(options.body === undefined ? {} : { body: JSON.stringify(options.body) }),
    });
  } catch {
    throw new ApiError(0, "The service does not answer. Is it running?");
  }
  if (response.status === 204) return { body: undefined as Body, etag: null };
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const problem = (body ?? {}) as { detail?: string; errors?: Place[] };
    const detail = problem.detail ?? `The service answered ${response.status}.`;
    throw new ApiError(response.status, detail, problem.errors ?? []);
  }
  return { body: body as Body, etag: response.headers.get("ETag") };
}

/** Calls `/api/v1/PATH` and returns the body. */
export async function call<Body>(path: string, options: Options = {}): Promise<Body> {
  return (await callWithEtag<Body>(path, options)).body;
}
