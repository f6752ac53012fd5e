/** Calling the service as the person who is signed in. */

import {
  type Answer,
  callWithEtag as callAs,
  type CallOptions,
  type Connection,
  type Place,
  ServiceError,
} from "../../../embed/src/service";

export { type Answer, type Place, ServiceError };

let csrfToken = "";

/** Kept from the session's answer; sent with every change. */
export function rememberCsrfToken(token: string): void {
  csrfToken = token;
}

/** Headers with which the embedded form acts for the person. */
export function sessionHeaders(): Record<string, string> {
  return { "X-CSRF-Token": csrfToken };
}

interface Options extends Pick<CallOptions, "method" | "body"> {
  /** The state that a change was made from. */
  etag?: string | null;
}

/** Calls `/api/v1/PATH` and returns the body with its ETag. */
export async function callWithEtag<Body>(path: string, { etag, ...options }: Options = {}): Promise<Answer<Body>> {
  const person: Connection = { base: "", headers: sessionHeaders() };
  return callAs<Body>(person, path, { ...options, ...(etag ? { headers: { "If-Match": etag } } : {}) });
}

/** Calls `/api/v1/PATH` and returns the body. */
export async function call<Body>(path: string, options: Options = {}): Promise<Body> {
  return (await callWithEtag<Body>(path, options)).body;
}
