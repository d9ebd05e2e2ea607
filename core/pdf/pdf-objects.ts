import { unzlibSync, zlibSync } from "fflate";
import { PdfError } from "./errors.ts";
import { PdfParser } from "./pdf-parser.ts";
import { PdfName, PdfRef, writeValue, type PdfDict, type PdfValue } from "./pdf-values.ts";

/**
 * The objects of a PDF that has a table of them (ISO 32000, 7.5.4), each read when it is asked for, and changed by an
 * incremental update (7.5.6): changed and new objects and a table of them are appended, and nothing before is touched.
 */
export class PdfObjects {
  readonly trailer: PdfDict;
  private readonly text: string;
  private readonly table: number;
  private readonly offsets = new Map<number, number>();
  /** Objects that have been asked for: those of the structure are by all who read it. */
  private readonly parsed = new Map<number, PdfValue>();
  private readonly changed = new Map<number, PdfValue>();
  private readonly changedStreams = new Map<number, string>();
  private size: number;

  /** @throws PdfError `trailer` where the file has no table that can be continued */
  constructor(private readonly bytes: Uint8Array) {
    // One character a byte, so that positions in the text are positions in the file.
    this.text = latin1(bytes);
    const end = /startxref\s+(\d+)\s+%%EOF\s*$/.exec(this.text.slice(-1024));
    const table = Number(end?.[1] ?? NaN);
    const parser = new PdfParser(this.text, table);
    if (!end || !parser.takes("xref"))
      throw new PdfError("trailer", "The PDF has no table of its objects that can be continued.");
    this.table = table;
    this.trailer = this.readTable(parser);
    this.size = this.trailer.get("Size") as number;
  }

  /** An object as it is now: what a reference leads to, or the value itself. Whoever changes it says so by `change`. */
  read(value: PdfValue | undefined): PdfValue {
    if (!(value instanceof PdfRef)) return value ?? null;
    const changed = this.changed.get(value.number);
    if (changed !== undefined) return changed;
    const known = this.parsed.get(value.number);
    if (known !== undefined) return known;
    const offset = this.offsets.get(value.number);
    const object = offset === undefined ? null : this.objectAt(value, offset).value();
    this.parsed.set(value.number, object);
    return object;
  }

  /** The same for what has to be a dictionary. @throws PdfError `object` where it is none */
  dictionary(value: PdfValue | undefined): PdfDict {
    const found = this.read(value);
    if (!(found instanceof Map)) throw new PdfError("object", "The PDF lacks a dictionary that it needs.");
    return found;
  }

  /** What an entry has that may have one or several, as the children of an element (14.7.2); references stay what they are. */
  several(value: PdfValue | undefined): PdfValue[] {
    const found = this.read(value);
    return Array.isArray(found) ? found : found === null ? [] : [value!];
  }

  /** What a page has itself, or from the pages above it (7.7.3.4); undefined where none has it. */
  inherited(page: PdfDict, key: string): PdfValue | undefined {
    const above = new Set<PdfDict>();
    for (let at: PdfValue = page; at instanceof Map && !above.has(at); at = this.read(at.get("Parent"))) {
      if (at.has(key)) return at.get(key);
      above.add(at);
    }
    return undefined;
  }

  /** An object of the file itself, and what its stream holds as it is packed (7.3.8); null where it is no stream. */
  whole(ref: PdfRef): { value: PdfValue; stream: Uint8Array | null } {
    const offset = this.offsets.get(ref.number);
    if (offset === undefined) return { value: null, stream: null };
    const parser = this.objectAt(ref, offset);
    const value = parser.value();
    if (!(value instanceof Map) || !parser.takes("stream")) return { value, stream: null };
    const start = parser.at + (this.text[parser.at] === "\r" ? 2 : 1);
    const length = this.read(value.get("Length")) as number;
    return { value, stream: this.bytes.subarray(start, start + length) };
  }

  /**
   * What a stream holds (7.3.8), one character a byte.
   * @throws PdfError `object` where the value is no stream, or of a filter that is not read here
   */
  stream(value: PdfValue | undefined): string {
    const { value: dictionary, stream } =
      value instanceof PdfRef ? this.whole(value) : { value: null, stream: null };
    if (!(dictionary instanceof Map) || !stream)
      throw new PdfError("object", "The PDF lacks a stream that it needs.");
    const filter = this.read(dictionary.get("Filter"));
    const [first, ...more] = Array.isArray(filter) ? filter : [filter];
    if (!first) return latin1(stream);
    if (!(first instanceof PdfName) || first.name !== "FlateDecode" || more.length > 0)
      throw new PdfError("object", "A stream of the PDF is packed in a way that is not read here.");
    try {
      return latin1(unzlibSync(stream));
    } catch {
      throw new PdfError(
        "object",
        "A stream of the PDF cannot be unpacked: the file is damaged, or encrypted.",
      );
    }
  }

  /** What a page shows as its operators, in one (7.7.3.3). @throws PdfError as `stream` does */
  content(page: PdfDict): string {
    return this.several(page.get("Contents"))
      .map((stream) => this.stream(stream))
      .join("\n");
  }

  /** Puts another value in an object's place. */
  change(ref: PdfRef, value: PdfValue): void {
    this.changed.set(ref.number, value);
  }

  /** Puts another content in a stream's place, one character a byte. */
  changeStream(ref: PdfRef, content: string): void {
    this.changedStreams.set(ref.number, content);
    this.changed.set(ref.number, null);
  }

  /** A new object. */
  add(value: PdfValue): PdfRef {
    const ref = new PdfRef(this.size++);
    this.changed.set(ref.number, value);
    return ref;
  }

  /** The file with all changes appended; the file as it was where there are none. */
  updated(): Uint8Array {
    if (this.changed.size === 0) return this.bytes;
    const objects = [...this.changed].sort(([a], [b]) => a - b);
    let offset = this.bytes.length + 1;
    let update = "\n";
    let table = "xref\n";
    for (const [number, value] of objects) {
      const stream = this.changedStreams.get(number);
      const written = stream === undefined ? writeValue(value) : writeStream(stream);
      const body = `${number} 0 obj\n${written}\nendobj\n`;
      table += `${number} 1\n${String(offset).padStart(10, "0")} 00000 n \n`;
      update += body;
      offset += body.length;
    }
    const trailer = new Map(this.trailer).set("Size", this.size).set("Prev", this.table);
    update += `${table}trailer\n${writeValue(trailer)}\nstartxref\n${offset}\n%%EOF\n`;
    const out = new Uint8Array(this.bytes.length + update.length);
    out.set(this.bytes);
    for (let i = 0; i < update.length; i++) out[this.bytes.length + i] = update.charCodeAt(i);
    return out;
  }

  /** Where an object's value begins. @throws PdfError `object` where no object is there */
  private objectAt({ number }: PdfRef, offset: number): PdfParser {
    const parser = new PdfParser(this.text, offset);
    parser.integer();
    parser.integer();
    if (parser.takes("obj")) return parser;
    throw new PdfError("object", `The PDF’s object ${number} is not where its table says.`);
  }

  /** Reads a table of objects and, where it continues an earlier one, that one; gives its trailer. */
  private readTable(parser: PdfParser): PdfDict {
    while (!parser.takes("trailer")) {
      const first = parser.integer();
      const count = parser.integer();
      for (let number = first; number < first + count; number++) {
        const offset = parser.integer();
        parser.integer();
        // The newest table is read first, and what it says of an object holds.
        if (parser.takes("n") && !this.offsets.has(number)) this.offsets.set(number, offset);
        else parser.takes("f");
      }
    }
    const trailer = parser.value();
    if (!(trailer instanceof Map)) throw new PdfError("trailer", "The PDF has no trailer.");
    const before = trailer.get("Prev");
    if (typeof before === "number") {
      const earlier = new PdfParser(this.text, before);
      if (earlier.takes("xref")) this.readTable(earlier);
    }
    return trailer;
  }
}

/** A stream as it is written, packed. @param content one character a byte */
function writeStream(content: string): string {
  const packed = latin1(zlibSync(Uint8Array.from(content, (sign) => sign.charCodeAt(0))));
  const dictionary = new Map<string, PdfValue>([
    ["Filter", new PdfName("FlateDecode")],
    ["Length", packed.length],
  ]);
  return `${writeValue(dictionary)}\nstream\n${packed}\nendstream`;
}

const together = 8_192;

/** Bytes as a text, one character each: what a `TextDecoder` calls so is another encoding by its standard. */
function latin1(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += together)
    text += String.fromCharCode.apply(null, bytes.subarray(at, at + together) as unknown as number[]);
  return text;
}
