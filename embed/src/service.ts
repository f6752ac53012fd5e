/** Calling the service: shapes of its answers, timeouts, and problems as one kind of error. */

export interface Suggestion {
  id: string;
  kind: string;
  label: string;
  country_code: string;
  count: number;
  /** Ranges [start, end) of the label, in Unicode characters. */
  matches: [number, number][];
}

export interface Suggestions {
  suggestions: Suggestion[];
  /** Typed words that were read as others. */
  corrected: Record<string, string>;
  /** Typed words and numbers that the suggestions do not have. */
  unmatched: string[];
  after: string | null;
}

/** One address, as `GET /addresses/ID` answers it. */
export interface Address {
  id: string;
  components: Record<string, string>;
  facts: {
    latitude: number | null;
    longitude: number | null;
    use: string | null;
    languages: string[];
  };
  lines: string[];
}

export interface FillAnswer {
  values: Record<string, string>;
  cleared: string[];
  warnings: string[];
  trace: { field: string; components: string[]; detail: string }[];
}

export interface Place {
  pointer: string;
  detail: string;
}

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

/** Calls the service and returns the JSON of its answer. */
export async function call<Answer>(
  connection: Connection,
  path: string,
  options: { body?: unknown; signal?: AbortSignal; headers?: Record<string, string> } = {},
): Promise<Answer> {
  const timeout = AbortSignal.timeout(LONGEST_WAIT_MS);
  const signal = options.signal ? AbortSignal.any([options.signal, timeout]) : timeout;
  const sends = options.body !== undefined;
  let response: Response;
  try {
    response = await fetch(`${connection.base}/api/v1/${path}`, {
      method: sends ? "POST" : "GET",
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
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as Answer;
  const problem = (answer ?? {}) as { detail?: string; errors?: Place[] };
  throw new ServiceError(
    response.status,
    problem.detail ?? `The service answered ${response.status}.`,
    problem.errors ?? [],
  );
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
