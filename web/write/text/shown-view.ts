import type { Node } from "prosemirror-model";
import type { Decoration, NodeView } from "prosemirror-view";

/** A node whose words follow from the whole book: it shows what its decoration tells it at each moment. */
export abstract class ShownView<Shown> implements NodeView {
  constructor(
    readonly dom: HTMLElement,
    protected node: Node,
    decorations: readonly Decoration[],
  ) {
    this.show(shownBy<Shown>(decorations));
  }

  update(node: Node, decorations: readonly Decoration[]): boolean {
    if (node.type !== this.node.type) return false;
    this.node = node;
    this.show(shownBy<Shown>(decorations));
    return true;
  }

  /** Shows what was told; null until the book around the chapter is known. */
  protected abstract show(shown: Shown | null): void;
}

function shownBy<Shown>(decorations: readonly Decoration[]): Shown | null {
  return (decorations.find(({ spec }) => spec.shown)?.spec.shown as Shown | undefined) ?? null;
}
