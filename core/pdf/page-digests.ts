import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { PdfError } from "./errors.ts";
import type { PdfObjects } from "./pdf-objects.ts";
import { PdfName, PdfRef, PdfString, type PdfDict, type PdfValue } from "./pdf-values.ts";

/** What a page has from the pages above it where it has none of its own (ISO 32000-1, 7.7.3.4). */
const inherited = ["Resources", "MediaBox", "CropBox", "Rotate"];
/** What leads away from a page's own content: to other pages, to what lies over it, to the file's structure. */
const beyond = new Set(["Parent", "Annots", "StructParents"]);

/**
 * Tells pages by all that is drawn on them: their content, fonts, pictures and boxes, wherever those stand in the file and
 * whatever numbers its objects have. Pages of two files with one digest show the same.
 */
export class PageDigests {
  /** Of objects; null while one is being read, and for one that leads back to itself. */
  private readonly digests = new Map<number, string | null>();

  constructor(private readonly objects: PdfObjects) {}

  /**
   * A page's digest (SHA-256, FIPS 180-4); null where something of it cannot be read, or leads in a circle.
   * @param page the number of its object
   */
  of(page: number): string | null {
    try {
      return this.read(page);
    } catch (error) {
      if (error instanceof PdfError) return null;
      throw error;
    }
  }

  private read(page: number): string | null {
    const own = this.objects.dictionary(new PdfRef(page));
    const whole: PdfDict = new Map([...own].filter(([key]) => !beyond.has(key)));
    for (const key of inherited) {
      const value = this.objects.inherited(own, key);
      if (value !== undefined) whole.set(key, value);
    }
    const told = this.told(whole);
    return told === null ? null : bytesToHex(sha256(utf8ToBytes(told)));
  }

  /** A value to the letter, with digests in the place of references. */
  private told(value: PdfValue): string | null {
    if (value instanceof PdfRef) return this.ofObject(value);
    if (value instanceof PdfName) return `/${JSON.stringify(value.name)}`;
    if (value instanceof PdfString) return JSON.stringify(value.bytes);
    if (Array.isArray(value)) {
      const parts = value.map((one) => this.told(one));
      return parts.includes(null) ? null : `[${parts.join()}]`;
    }
    if (!(value instanceof Map)) return String(value);
    const parts: string[] = [];
    for (const [key, inner] of value) {
      const told = this.told(inner);
      if (told === null) return null;
      parts.push(`${JSON.stringify(key)}:${told}`);
    }
    return `{${parts.join()}}`;
  }

  private ofObject(ref: PdfRef): string | null {
    const known = this.digests.get(ref.number);
    if (known !== undefined) return known;
    this.digests.set(ref.number, null);
    const { value, stream } = this.objects.whole(ref);
    const told = this.told(value);
    if (told === null) return null;
    const hash = sha256.create().update(utf8ToBytes(told));
    const digest = bytesToHex((stream ? hash.update(stream) : hash).digest());
    this.digests.set(ref.number, digest);
    return digest;
  }
}
