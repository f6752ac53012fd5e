/** What a page needs before a document can be edited on it: the draft, and what is published. */

import { queryOptions } from "@tanstack/react-query";

import { type Answer, call, callWithEtag } from "../../api/call";
import type { AnyDocument, DraftOf, KindOfDocument } from "./kind";

export interface Opened<Document, Body extends DraftOf<Document>> {
  kept: Answer<Body>;
  /** What people meet; null where nothing is published. */
  published: Document | null;
}

/** A draft's answer, its document as edits compare it. */
export async function answered<Document extends AnyDocument, Body extends DraftOf<Document>>(
  kind: KindOfDocument<Document>,
  asking: Promise<Answer<Body>>,
): Promise<Answer<Body>> {
  const answer = await asking;
  return { ...answer, body: { ...answer.body, document: kind.plain(answer.body.document) } };
}

export const opening = <Document extends AnyDocument, Body extends DraftOf<Document>>(kind: KindOfDocument<Document>, key: string) =>
  queryOptions({
    queryKey: ["opened", kind.path, key],
    queryFn: async (): Promise<Opened<Document, Body>> => {
      const path = `${kind.path}/${key}`;
      const kept = await answered<Document, Body>(kind, callWithEtag<Body>(`${path}/draft`));
      const number = kept.body.summary.published_version;
      const published = number === null ? null : await call<{ document: Document }>(`${path}/versions/${number}`);
      return { kept, published: published && kind.plain(published.document) };
    },
    // What somebody else changed comes in by another way, never over what is being edited here.
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
