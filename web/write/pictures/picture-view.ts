import { shortDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { hotspotBox, outline } from "@vennet/core/manuscript/hotspot";
import { pictureAttrs, pictureWords } from "@vennet/core/manuscript/attributes";
import type { Node } from "prosemirror-model";
import type { Decoration, NodeView } from "prosemirror-view";

const svg = "http://www.w3.org/2000/svg";

/**
 * A picture on the page, with the areas that are links shown over it and where each leads; one that was
 * never brought along shows the words that stand for it.
 */
export class PictureView implements NodeView {
  readonly dom: HTMLElement;
  private active: string | null;

  constructor(
    private node: Node,
    private readonly bookId: string,
    private readonly names: () => DestinationNames,
    private readonly onHotspot: (id: string) => void,
    decorations: readonly Decoration[],
  ) {
    this.dom = document.createElement("span");
    this.active = activeHotspot(decorations);
    this.show();
  }

  update(node: Node, decorations: readonly Decoration[]): boolean {
    if (node.type !== this.node.type) return false;
    const active = activeHotspot(decorations);
    if (!node.sameMarkup(this.node) || active !== this.active) {
      this.node = node;
      this.active = active;
      this.show();
    }
    return true;
  }

  private show(): void {
    const attrs = pictureAttrs(this.node);
    if (attrs.file === null) {
      this.dom.className = "picture-awaited";
      this.dom.textContent = pictureWords(attrs);
      this.dom.title = "This picture was not brought along";
      return;
    }
    this.dom.className = "picture";
    this.dom.style.width = attrs.width === null ? "" : `${attrs.width}%`;
    const image = document.createElement("img");
    image.src = `/api/books/${this.bookId}/files/${attrs.file}`;
    image.alt = attrs.alt;
    this.dom.replaceChildren(image);
    if (attrs.hotspots.length === 0) return;
    const areas = document.createElementNS(svg, "svg");
    areas.setAttribute("viewBox", "0 0 1 1");
    areas.setAttribute("preserveAspectRatio", "none");
    areas.setAttribute("aria-hidden", "true");
    this.dom.append(areas);
    for (const hotspot of attrs.hotspots) {
      const area = document.createElementNS(svg, "polygon");
      area.dataset["area"] = hotspot.id;
      const [ring] = outline(hotspot);
      area.setAttribute("points", ring!.map(([x, y]) => `${x},${y}`).join(" "));
      if (hotspot.id === this.active) area.setAttribute("class", "hotspot-active");
      area.addEventListener("mousedown", (event) => {
        event.preventDefault();
        event.stopPropagation();
        this.onHotspot(hotspot.id);
      });
      areas.append(area);
      const box = hotspotBox(hotspot);
      const caption = document.createElement("span");
      caption.className = "picture-caption";
      caption.textContent = shortDestination(hotspot.destination, this.names());
      caption.style.left = `${box.x * 100}%`;
      caption.style.top = `${(box.y + box.height) * 100}%`;
      this.dom.append(caption);
    }
  }
}

function activeHotspot(decorations: readonly Decoration[]): string | null {
  for (const { spec } of decorations) if (spec.hotspot) return spec.hotspot as string;
  return null;
}
