import type { Node } from "prosemirror-model";
import { Plugin } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";

/** What is written by what the book says at the moment: references, numbers of notes, signpost lists. */
const written: Readonly<Record<string, string>> = {
  cross_reference: "span[data-reference]",
  note_reference: "sup[data-note]",
  signposts: "nav[data-signposts]",
};

/** The elements that showed it in what was copied last, of each kind in their order. */
let shown = new Map<string, HTMLElement[]>();

/** Other programs get the words of references, the numbers of notes and the entries of lists with what is copied. */
export const wordsInCopies = new Plugin({
  props: {
    handleDOMEvents: { copy: remember, cut: remember, dragstart: remember },
    clipboardTextSerializer({ content }) {
      const count = new Map<string, number>();
      const wordsOf = (node: Node): string => {
        const at = count.get(node.type.name) ?? 0;
        count.set(node.type.name, at + 1);
        const element = shown.get(node.type.name)?.[at];
        if (!element) return node.type.spec.leafText?.(node) ?? "";
        const number = element.dataset["number"];
        return number === undefined ? element.innerText : `[${number}]`;
      };
      return content.textBetween(0, content.size, "\n\n", wordsOf);
    },
  },
});

/** Puts into what goes to the clipboard what the page shows; this editor makes it anew, whatever stands there. */
export function showWords(copy: ParentNode): void {
  for (const [kind, selector] of Object.entries(written))
    for (const [i, one] of [...copy.querySelectorAll<HTMLElement>(selector)].entries()) {
      const element = shown.get(kind)?.[i];
      const number = element?.dataset["number"];
      if (number !== undefined) one.textContent = number;
      else if (element) one.append(...[...element.childNodes].map((child) => child.cloneNode(true)));
    }
}

function remember(view: EditorView): boolean {
  shown = new Map(Object.keys(written).map((kind) => [kind, []]));
  for (const { $from, $to } of view.state.selection.ranges)
    view.state.doc.nodesBetween($from.pos, $to.pos, (node, at) => {
      const element = shown.has(node.type.name) ? view.nodeDOM(at) : null;
      if (element instanceof HTMLElement) shown.get(node.type.name)!.push(element);
    });
  return false;
}
