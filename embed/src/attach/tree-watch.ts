/** Watching all trees of a page: they come and go, and frames get other pages. */

import { type Tree, treesIn } from "./trees";

const CHANGES = { childList: true, subtree: true, attributes: true, attributeFilter: ["name", "id", "class", "autocomplete", "readonly", "disabled", "aria-readonly", "aria-disabled", "type", "contenteditable"] };

export class TreeWatch {
  /** What ends watching each tree. */
  private readonly watched = new Map<Tree, () => void>();

  /** @param tell that something has changed, in one of the trees that were there when it was last renewed */
  constructor(private readonly tell: () => void) {}

  /** Watches the trees that there are now. */
  renew(): void {
    const trees = new Set(treesIn(document));
    for (const [tree, end] of this.watched) {
      if (trees.has(tree)) continue;
      end();
      this.watched.delete(tree);
    }
    for (const tree of trees) if (!this.watched.has(tree)) this.watched.set(tree, this.watch(tree));
  }

  end(): void {
    for (const end of this.watched.values()) end();
    this.watched.clear();
  }

  private watch(tree: Tree): () => void {
    const observer = new MutationObserver(this.tell);
    observer.observe(tree, CHANGES);
    // Of a frame whose page has come nothing changes in the tree around it; and this does not bubble.
    const come = ({ target }: Event): void => {
      if ((target as Element).localName === "iframe") this.tell();
    };
    tree.addEventListener("load", come, true);
    return () => {
      observer.disconnect();
      tree.removeEventListener("load", come, true);
    };
  }
}
