/** What the console says of one kind of document, beside what it does with all of them alike. */

import type { Place } from "../../api/call";
import type { Shape } from "./merge";

/** What lists show of a document that is drafted and published. */
export interface Drafted {
  published_version: number | null;
  draft_differs: boolean;
}

/** A draft as the service answers it. */
export interface DraftOf<Document> {
  document: Document;
  summary: Drafted & { changed_at: string };
  problems: readonly Place[];
}

/** A document with what every kind has. */
export interface AnyDocument {
  key: string;
  title: string;
}

export interface KindOfDocument<Document extends AnyDocument> {
  /** Below the API's root, where its documents are. */
  path: string;
  /** What a list of them is called in its answer. */
  plural: string;
  /** Of the console's list of them. */
  page: string;
  /** The queries that a change makes old. */
  lists: string[];
  /** Of what its documents are made, for putting two people's changes together. */
  shape: Shape<Document>;
  /** A document as edits compare it: without what has no effect. */
  plain: (document: Document) => Document;
  /** What follows where one is deleted, in a sentence. */
  deleted: string;
  /** What happens where another version is published. */
  restored: string;
  publishing: {
    /** What publishing means where nothing is published yet. */
    first: (document: Document) => string;
    /** What stands above the changes. */
    from: string;
    /** What stands below them. */
    note?: string;
  };
  none: {
    /** The button by which no version is published any more. */
    button: string;
    question: string;
    ok: string;
    /** What happens then. */
    says: string;
    done: string;
  };
}
