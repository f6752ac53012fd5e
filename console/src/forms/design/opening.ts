/** What a page needs before a form can be made on it: the draft, and what people meet. */

import { queryOptions } from "@tanstack/react-query";

import { type Answer, call, callWithEtag } from "../../api/call";
import type { Draft, FormAnswer, FormDocument } from "../../api/schemas";
import { bare } from "./bare";

export interface Opened {
  kept: Answer<Draft>;
  /** What people meet; null where nothing is published. */
  published: FormDocument | null;
}

/** A draft's answer without what has no effect. */
export async function answered(asking: Promise<Answer<Draft>>): Promise<Answer<Draft>> {
  const answer = await asking;
  return { ...answer, body: { ...answer.body, document: bare(answer.body.document) } };
}

export const opening = (form: string) =>
  queryOptions({
    queryKey: ["design", form],
    queryFn: async (): Promise<Opened> => {
      const kept = await answered(callWithEtag<Draft>(`forms/${form}/draft`));
      const number = kept.body.summary.published_version;
      const published = number === null ? null : await call<FormAnswer>(`forms/${form}/versions/${number}`);
      return { kept, published: published && bare(published.document) };
    },
    // What somebody else changed comes in by another way, never over what is being edited here.
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
