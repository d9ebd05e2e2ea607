import type { Link, Node, Nodes, Parents, Root } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { gfm } from "micromark-extension-gfm";
import { treeInStretches } from "../../markdown/tree-in-stretches.ts";
import { escapesAsMarks, hasMarks, withoutEscapes } from "./escapes.ts";

/**
 * The tree of a text in Markdown (CommonMark 0.31, GFM).
 * @param length how long a stretch that is parsed at once is at least
 */
export function treeOfMarkdown(text: string, length?: number): Root {
  return treeInStretches(text, parsed, length);
}

function parsed(text: string): Root {
  return withoutBareWww(parsedWithEscapes(text));
}

/** Parsers take “www.” at the end of a sentence for an address; one has a domain behind it (GFM 0.29, 6.9). */
function withoutBareWww(tree: Root): Root {
  const visit = (parent: Parents): void => {
    parent.children.forEach((child, i) => {
      if (isBareWww(child)) (parent.children as Node[])[i] = child.children[0]!;
      else if ("children" in child) visit(child);
    });
  };
  visit(tree);
  return tree;
}

function isBareWww(node: Nodes): node is Link {
  return node.type === "link" && /^http:\/\/www$/i.test(node.url);
}

function parsedWithEscapes(text: string): Root {
  const extensions = [gfm()];
  if (hasMarks(text)) return fromMarkdown(text, { extensions, mdastExtensions: [gfmFromMarkdown()] });
  return withoutEscapes(
    fromMarkdown(text, { extensions, mdastExtensions: [gfmFromMarkdown(), escapesAsMarks] }),
  );
}
