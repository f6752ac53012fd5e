/** The trees that make up a page: its document, open shadow roots, and frames of its own origin. */

export type Tree = Document | ShadowRoot;

/** A tree and all that are in it. */
export function* treesIn(tree: Tree): Generator<Tree> {
  yield tree;
  for (const element of Array.from(tree.querySelectorAll("*"))) {
    if (element.shadowRoot && !element.hasAttribute("data-anchorline")) yield* treesIn(element.shadowRoot);
    if (element.localName === "iframe") {
      const inside = documentOf(element as HTMLIFrameElement);
      if (inside) yield* treesIn(inside);
    }
  }
}

/** The document of a frame; null where it is of another origin. */
function documentOf(frame: HTMLIFrameElement): Document | null {
  try {
    return frame.contentDocument;
  } catch {
    return null;
  }
}
