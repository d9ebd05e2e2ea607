import type { ReferenceShown } from "./book-numbers";
import { ShownView } from "./shown-view";

/** A cross-reference on the page: the words that it has at this moment, or a gap where its target is gone. */
export class ReferenceView extends ShownView<ReferenceShown> {
  protected show(shown: ReferenceShown | null): void {
    this.dom.className = shown?.isGap ? "cross-reference gap" : "cross-reference";
    this.dom.dataset["goto"] = this.node.attrs["target"] as string;
    const words = shown?.words ?? "…";
    if (this.dom.textContent !== words) this.dom.textContent = words;
  }
}
