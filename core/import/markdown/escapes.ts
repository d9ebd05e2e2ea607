import type { Nodes } from "mdast";
import type { Extension } from "mdast-util-from-markdown";

// Parsers look for addresses in words after they have taken the backslashes away, so that one would be a link whose author
// escaped it (CommonMark 0.31, 2.4). Until then escaped signs are letters that no text has (Unicode, noncharacters).

const first = 0xfdd0;
/** All that can be escaped: the 32 signs of ASCII. */
const signs = "!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~";
/** Where a node has what was made of words. */
const worded = ["value", "alt", "url", "title", "lang", "meta"];
const marks = /[\ufdd0-\ufdef]/g;

/** An extension by which escaped signs are marks in the words of a tree; {@link withoutEscapes} makes signs of them again. */
export const escapesAsMarks: Extension = {
  exit: {
    characterEscapeValue(token) {
      this.config.exit["data"]!.call(this, token);
      const parent = this.stack.at(-1);
      const words = parent && "children" in parent ? parent.children.at(-1) : undefined;
      const at = signs.indexOf(this.sliceSerialize(token));
      if (words?.type === "text" && at !== -1)
        words.value = words.value.slice(0, -1) + String.fromCharCode(first + at);
    },
  },
};

/** Whether a text has letters of its own that would be taken for marks. */
export function hasMarks(text: string): boolean {
  return text.search(marks) !== -1;
}

/** Makes signs of the marks in a tree again. */
export function withoutEscapes<Tree extends Nodes>(tree: Tree): Tree {
  const visit = (node: Nodes): void => {
    const said = node as unknown as Record<string, unknown>;
    for (const key of worded) if (typeof said[key] === "string") said[key] = shown(said[key]);
    if ("children" in node) for (const child of node.children) visit(child);
  };
  visit(tree);
  return tree;
}

function shown(words: string): string {
  return words.replace(marks, (mark) => signs[mark.charCodeAt(0) - first]!);
}
