/** A search with its trace, and how long it took. */

import type { Suggestion, Suggestions } from "../../../embed/src/service";
import { ApiError, call } from "../api/call";

export type { Suggestion };

export const KINDS = ["address", "street", "place", "postcode", "town", "region", "district", "building", "organisation"];

export interface Trace {
  interpretations: { dataset: string; interpretation: string; tokens: string[]; found: number }[];
  rows: { id: string; score: number; parts: Record<string, number> }[];
}

export interface SearchAnswer extends Suggestions {
  edition: string;
  trace: Trace | null;
}

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
    if (error instanceof ApiError && error.places.length) {
      const said = error.places.map((place) => `${place.pointer.replace("?", "")}: ${place.detail}`);
      throw new ApiError(error.status, said.join(" "), error.places);
    }
    throw error;
  }
}
