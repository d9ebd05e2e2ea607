import { pictureAttrs, pictureWords } from "@vennet/core/manuscript/schema";
import type { Node } from "prosemirror-model";
import type { NodeView } from "prosemirror-view";

/** A picture on the page; one that was never brought along shows the words that stand for it. */
export class PictureView implements NodeView {
  readonly dom: HTMLElement;

  constructor(
    node: Node,
    private readonly bookId: string,
  ) {
    const attrs = pictureAttrs(node);
    if (attrs.file === null) {
      this.dom = document.createElement("span");
      this.dom.className = "picture-awaited";
      this.dom.textContent = pictureWords(attrs);
      this.dom.title = "This picture was not brought along";
      return;
    }
    const image = document.createElement("img");
    image.src = `/api/books/${this.bookId}/files/${attrs.file}`;
    image.alt = attrs.alt;
    this.dom = image;
  }
}
