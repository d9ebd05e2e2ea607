import { hasSigns, landingLength } from "./landing.ts";

const blocks = new Set(
  "p h1 h2 h3 h4 h5 h6 li td th dt dd pre figcaption div aside section blockquote figure svg".split(" "),
);

interface Watched {
  id: string;
  text: string;
  /** Whether its element is still open; an empty one is followed by what stands after it in its block. */
  isOpen: boolean;
  depth: number;
}

/**
 * Collects, while a page is read from its first tag to its last, the words at each of its ids: those inside the
 * element, else those after it in its block, else those of the whole block.
 */
export class LandingTexts {
  readonly found = new Map<string, string>();
  private readonly watched = new Set<Watched>();
  private readonly openBlocks: { depth: number; text: string }[] = [];
  private depth = 0;

  open(tag: string, id: string | null): void {
    this.depth++;
    if (blocks.has(tag)) this.openBlocks.push({ depth: this.depth, text: "" });
    if (id === null) return;
    this.found.set(id, "");
    this.watched.add({ id, text: "", isOpen: true, depth: this.depth });
  }

  text(words: string): void {
    for (const block of this.openBlocks) if (block.text.length < landingLength) block.text += words;
    for (const one of this.watched) {
      one.text += words;
      if (one.text.length >= landingLength) this.settle(one, one.text);
    }
  }

  close(): void {
    const closes = this.openBlocks.at(-1)?.depth === this.depth ? this.openBlocks.pop()! : null;
    for (const one of this.watched) {
      if (one.isOpen && one.depth === this.depth) {
        if (!hasSigns(one.text) && !closes) one.isOpen = false;
        else this.settle(one, one.text);
      } else if (closes && !one.isOpen && one.depth > this.depth) {
        const text = hasSigns(one.text) ? one.text : closes.text;
        // A block without words is followed by one that has some.
        if (text.trim() !== "") this.settle(one, text);
      }
    }
    this.depth--;
  }

  private settle(one: Watched, text: string): void {
    this.watched.delete(one);
    this.found.set(one.id, text.replace(/\s+/g, " ").trim().slice(0, landingLength));
  }
}
