import type { Said } from "../said-for-coming-back.ts";

/**
 * What a text document says for coming back, as properties of it by short names: what is wrapped in it has such a name,
 * since names are short.
 */
export class SaidByTags {
  /** What the tags mean, and what places are called. */
  readonly properties: { name: string; value: string }[] = [];
  private readonly tags = new Map<string, string>();

  /** What something is that has a name in the document itself, as a bookmark. */
  say(name: string, value: string): void {
    this.properties.push({ name: `vennet-${name}`, value });
  }

  /** The name by which something says it. */
  tagOf(said: Said): string {
    if ("made" in said) return "vennet-made";
    const value = JSON.stringify(Object.fromEntries(Object.entries(said).filter(([, one]) => one !== null)));
    const known = this.tags.get(value);
    if (known !== undefined) return known;
    const name = String(this.tags.size + 1);
    this.tags.set(value, `vennet-${name}`);
    this.say(name, value);
    return `vennet-${name}`;
  }
}
