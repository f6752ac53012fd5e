/** What the console says of one kind of document, beside what it does with all of them alike. */

export interface KindOfDocument {
  /** Below the API's root, where its documents are. */
  path: string;
  /** What a list of them is called in its answer. */
  plural: string;
  /** Of the console's list of them. */
  page: string;
  /** The queries that a change makes old. */
  lists: string[];
  /** What follows where one is deleted, in a sentence. */
  deleted: string;
  /** What happens where another version is published. */
  restored: string;
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
