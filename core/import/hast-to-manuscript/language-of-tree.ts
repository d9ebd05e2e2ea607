import type { Element } from "hast";
import { Fragment, type Mark, type Node } from "prosemirror-model";
import { languageOf, languageTag } from "../../manuscript/language.ts";
import { schema } from "../../manuscript/schema.ts";

/** The mark for the language in which an element says that it is; null where it says none that is one. */
export function languageMark({ properties }: Element): Mark | null {
  const said = properties["lang"] ?? properties["xmlLang"] ?? properties["xml:lang"];
  const tag = typeof said === "string" ? languageTag(said) : null;
  return tag === null ? null : schema.mark("language", { tag });
}

/** Blocks with a language on all their words that are in no other. */
export function inLanguage(nodes: readonly Node[], mark: Mark | null): Node[] {
  if (mark === null) return [...nodes];
  const marked = (node: Node, parent: Node | null): Node => {
    if (node.isText)
      return languageOf(node) === null && (parent === null || parent.type.allowsMarkType(mark.type))
        ? node.mark(mark.addToSet(node.marks))
        : node;
    return node.isLeaf ? node : node.copy(Fragment.from(node.children.map((inner) => marked(inner, node))));
  };
  return nodes.map((node) => marked(node, null));
}
