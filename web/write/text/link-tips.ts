import { nameDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { Plugin } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { tipSources } from "../../frame/tips";

/** Where a link that is pointed at leads, and its description. */
export function linkTips(names: () => DestinationNames): Plugin {
  return new Plugin({
    view(view) {
      const source = (pointed: Element) => {
        if (!view.dom.contains(pointed)) return null;
        const on = pointed.closest("a, .cross-reference, .picture");
        const use = on && linkAt(view, on, pointed);
        return on && use ? { on, words: tellLink(use, names()) } : null;
      };
      tipSources.add(source);
      return { destroy: () => tipSources.delete(source) };
    },
  });
}

function linkAt(view: EditorView, on: Element, pointed: Element): LinkUse | undefined {
  const at = view.posAtDOM(on, 0);
  const area = pointed.closest<SVGElement>("[data-area]")?.dataset["area"];
  return linkUses(view.state.doc).find(({ id, from, to, on: what }) =>
    area === undefined ? what !== "hotspot" && from <= at && at < to : id === area,
  );
}

function tellLink({ destination, description }: LinkUse, names: DestinationNames): string {
  return [nameDestination(destination, names), description].filter(Boolean).join("\n");
}
