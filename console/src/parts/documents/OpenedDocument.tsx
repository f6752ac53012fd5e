/** Opens a document for editing: what stands there until it is open, and where it cannot be. */

import { useQuery } from "@tanstack/react-query";
import { App, Skeleton } from "antd";

import { LoadError } from "../LoadError";
import type { AnyDocument, DraftOf, KindOfDocument } from "./kind";
import { type Opened, opening } from "./opening";
import { type Edited, useKeeping } from "./useKeeping";

interface Props<Document extends AnyDocument, Body extends DraftOf<Document>> {
  kind: KindOfDocument<Document>;
  document: string;
  /** The page of the document; drawn with hooks of its own. */
  Page: (props: { of: Edited<Document, Body> }) => React.ReactNode;
}

export function OpenedDocument<Document extends AnyDocument, Body extends DraftOf<Document>>(props: Props<Document, Body>): React.ReactNode {
  const { kind, document } = props;
  const opened = useQuery(opening<Document, Body>(kind, document));
  if (opened.isError) return <LoadError error={opened.error} again={() => void opened.refetch()} />;
  if (!opened.data) return <Skeleton active />;
  return <Editing key={document} {...props} opened={opened.data} />;
}

function Editing<Document extends AnyDocument, Body extends DraftOf<Document>>(
  props: Props<Document, Body> & { opened: Opened<Document, Body> },
): React.ReactNode {
  const { kind, document, Page, opened } = props;
  const { message } = App.useApp();
  const edited = useKeeping<Document, Body>(kind, document, opened, (sentence) => void message.info(sentence));
  return <Page of={edited} />;
}
