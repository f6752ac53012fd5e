/** A search with its trace, and how long it took. */

import type * as api from "../../../embed/src/api";
import type { Suggestion } from "../../../embed/src/service";
import { ServiceError, call } from "../api/call";

export type { Suggestion };

export const KINDS = ["address", "street", "place", "postcode", "town", "region", "district", "building", "organisation"];

export type Trace = api.TraceSchema;
export type SearchAnswer = api.Suggestions;

export interface Found {
  answer: SearchAnswer;
  milliseconds: number;
}

export async function search(query: URLSearchParams): Promise<Found> {
  query.set("trace", "true");
  query.set("limit", "12");
  const began = performance.now();
  try {
    const answer = await call<SearchAnswer>(`suggest?${query}`);
    return { answer, milliseconds: performance.now() - began };
  } catch (error) {
    if (error instanceof ServiceError && error.places.length) {
      const said = error.places.map((place) => `${place.pointer.replace("?", "")}: ${place.detail}`);
      throw new ServiceError(error.status, said.join(" "), error.places);
    }
    throw error;
  }
}
