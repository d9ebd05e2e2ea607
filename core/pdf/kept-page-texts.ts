/** Some thirty kilobytes each. */
const mostKept = 1_500;

/**
 * The texts of the pages that were read last, by the pages' digests: a page that is in a file as it was in the one before
 * need not be read again.
 */
export class KeptPageTexts<Text> {
  /** The one that was asked for longest ago first. */
  private readonly texts = new Map<string, Text>();

  of(digest: string): Text | null {
    const text = this.texts.get(digest);
    if (!text) return null;
    this.keep(digest, text);
    return text;
  }

  keep(digest: string, text: Text): void {
    this.texts.delete(digest);
    this.texts.set(digest, text);
    for (const oldest of this.texts.keys()) {
      if (this.texts.size <= mostKept) break;
      this.texts.delete(oldest);
    }
  }
}
