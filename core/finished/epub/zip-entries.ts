import { zipSync } from "fflate";
import { pathOfEntry } from "../../import/containers.ts";
import { FinishedError } from "../errors.ts";

/** Signatures and sizes of records (APPNOTE 6.3.3, 4.3.7, 4.3.12, 4.3.16; ISO/IEC 21320-1). */
const endRecord = { sign: 0x06054b50, size: 22 };
const centralRecord = { sign: 0x02014b50, size: 46 };
const longestComment = 65_535;

/** An entry as the directory at the end of a container tells it. */
interface Entry {
  name: string;
  /** As the container has it. */
  written: Uint8Array;
  /** Where its record in the directory begins and ends. */
  at: number;
  end: number;
  /** Where its own record, with its data, begins. */
  offset: number;
}

/**
 * A container in which some entries have other content: these are packed anew in their places, and the bytes of all
 * others, their records included, stay as they are.
 * @param contents by the names of entries that are there
 * @throws FinishedError `format` where its directory cannot be followed
 */
export function withEntries(given: Uint8Array, contents: ReadonlyMap<string, Uint8Array>): Uint8Array {
  // Parts of a buffer of Node.js would be views of it, and not copies that can be changed.
  const bytes = new Uint8Array(given.buffer, given.byteOffset, given.byteLength);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const { entries, directory, end } = readDirectory(bytes, view);
  const inOrder = [...entries].sort((a, b) => a.offset - b.offset);
  const parts: Uint8Array[] = [bytes.slice(0, inOrder[0]?.offset ?? directory)];
  const records = new Map<Entry, Uint8Array>();
  let length = parts[0]!.length;
  for (const [i, entry] of inOrder.entries()) {
    const content = contents.get(entry.name);
    const record = bytes.slice(entry.at, entry.end);
    const told = new DataView(record.buffer);
    if (content === undefined) parts.push(bytes.slice(entry.offset, inOrder[i + 1]?.offset ?? directory));
    else parts.push(packed(entry.written, content, told));
    told.setUint32(42, length, true);
    records.set(entry, record);
    length += parts.at(-1)!.length;
  }
  const central = entries.map((entry) => records.get(entry)!);
  const size = central.reduce((sum, one) => sum + one.length, 0);
  // What stands between the directory and its end, as a signature may, goes with it.
  const tail = bytes.slice(entries.at(-1)?.end ?? directory);
  const told = new DataView(tail.buffer);
  told.setUint32(end - (entries.at(-1)?.end ?? directory) + 12, size, true);
  told.setUint32(end - (entries.at(-1)?.end ?? directory) + 16, length, true);
  return joined([...parts, ...central, tail]);
}

function readDirectory(
  bytes: Uint8Array,
  view: DataView,
): { entries: Entry[]; directory: number; end: number } {
  const damaged = new FinishedError("format", "The container of this e-book cannot be followed to its end.");
  let end = bytes.length - endRecord.size;
  const least = Math.max(0, end - longestComment);
  while (end >= least && view.getUint32(end, true) !== endRecord.sign) end--;
  if (end < least) throw damaged;
  const count = view.getUint16(end + 10, true);
  const directory = view.getUint32(end + 16, true);
  if (count === 0xffff || directory === 0xffffffff)
    throw new FinishedError(
      "format",
      "The container of this e-book is of a kind for very large files (ZIP64), which is not written here.",
    );
  const entries: Entry[] = [];
  let at = directory;
  for (let i = 0; i < count; i++) {
    if (at + centralRecord.size > end || view.getUint32(at, true) !== centralRecord.sign) throw damaged;
    const [name, extra, comment] = [28, 30, 32].map((field) => view.getUint16(at + field, true)) as [
      number,
      number,
      number,
    ];
    const next = at + centralRecord.size + name + extra + comment;
    const offset = view.getUint32(at + 42, true);
    if (next > end || offset >= directory) throw damaged;
    const written = bytes.subarray(at + centralRecord.size, at + centralRecord.size + name);
    const said = nameOf(written, view.getUint16(at + 8, true));
    entries.push({ name: pathOfEntry(said), written, at, end: next, offset });
    at = next;
  }
  return { entries, directory, end };
}

/** As the reader of containers names them: in UTF-8 where that is said, else letter by letter. */
function nameOf(bytes: Uint8Array, flags: number): string {
  return flags & 0x800 ? new TextDecoder().decode(bytes) : String.fromCharCode(...bytes);
}

/** An entry packed anew under the name that it has, and its record in the directory told so. */
function packed(name: Uint8Array, content: Uint8Array, record: DataView): Uint8Array {
  const single = zipSync({ x: content }, { level: 9, mtime: new Date(1980, 0, 1) });
  const view = new DataView(single.buffer, single.byteOffset, single.byteLength);
  const data = 30 + view.getUint16(26, true) + view.getUint16(28, true);
  const size = view.getUint32(18, true);
  const head = single.slice(0, 30);
  const told = new DataView(head.buffer);
  // Whether its name is in UTF-8, and when it was changed, stay as they were told.
  told.setUint16(6, (view.getUint16(6, true) & ~0x800) | (record.getUint16(8, true) & 0x800), true);
  told.setUint32(10, record.getUint32(12, true), true);
  told.setUint16(26, name.length, true);
  told.setUint16(28, 0, true);
  // How it is packed, its sum and its sizes; its sizes stand before it and not behind.
  record.setUint16(8, told.getUint16(6, true), true);
  record.setUint16(10, view.getUint16(8, true), true);
  for (const [from, to] of [
    [14, 16],
    [18, 20],
    [22, 24],
  ] as const)
    record.setUint32(to, view.getUint32(from, true), true);
  return joined([head, name, single.subarray(data, data + size)]);
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
