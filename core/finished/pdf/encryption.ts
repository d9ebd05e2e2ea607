import {
  PDFArray,
  PDFCatalog,
  PDFDict,
  PDFHexString,
  PDFNumber,
  PDFPageLeaf,
  PDFPageTree,
  PDFSecurity,
  PDFString,
  type PDFDocument,
  type PDFObject,
  type PDFRef,
} from "@cantoo/pdf-lib";
import { cbc } from "@noble/ciphers/aes.js";
import { md5 } from "@noble/hashes/legacy.js";
import { sha256, sha384, sha512 } from "@noble/hashes/sha2.js";
import { bytesToHex, concatBytes } from "@noble/hashes/utils.js";
import { FinishedError } from "../errors.ts";
import { dictionaryIn, entry, nameIn } from "./open-pdf.ts";

/** What is put behind, or for, a password (ISO 32000-1, 7.6.3.3, algorithm 2). */
const padding = Uint8Array.of(
  ...[0x28, 0xbf, 0x4e, 0x5e, 0x4e, 0x75, 0x8a, 0x41, 0x64, 0x00, 0x4e, 0x56, 0xff, 0xfa, 0x01, 0x08],
  ...[0x2e, 0x2e, 0x00, 0xb6, 0xd0, 0x68, 0x3e, 0x80, 0x2f, 0x0c, 0xa9, 0xfe, 0x64, 0x53, 0x69, 0x7a],
);
/** The permissions to change content, and to add and change annotations (table 22). */
const mayChange = 0b1000;
const mayAnnotate = 0b100000;

/**
 * How a PDF is encrypted that everybody may open: what is appended to it is encrypted with the same key (ISO 32000-1, 7.6;
 * ISO 32000-2, 7.6.4.3.3 for AES of 256 bits).
 */
export class FileEncryption {
  private constructor(
    private readonly security: PDFSecurity,
    private readonly isChangeable: boolean,
  ) {}

  /**
   * @param document the file, opened without being decrypted
   * @throws FinishedError `encrypted` where it is encrypted in a way that is not known
   */
  static of({ context }: PDFDocument): FileEncryption {
    const said = context.lookup(context.trailerInfo.Encrypt);
    const [id] = context.lookup(context.trailerInfo.ID, PDFArray).asArray();
    if (!(said instanceof PDFDict) || nameIn(said, "Filter") !== "Standard") throw unknown();
    const revision = numberOf(said, "R");
    const isChangeable = (numberOf(said, "P") & (mayChange | mayAnnotate)) !== 0;
    const cipher = cipherOf(said);
    const key =
      revision >= 5
        ? keyOfRevision6(said, revision)
        : keyOfRevision4(said, revision, bytesOf(context.lookup(id)), cipher.bits);
    const security = Object.create(PDFSecurity.prototype) as PDFSecurity;
    return new FileEncryption(
      Object.assign(security, { encryption: { V: cipher.way }, encryptionKey: key, keyBits: cipher.bits }),
      isChangeable,
    );
  }

  /** @throws FinishedError `encrypted` where it forbids that its links are changed */
  assertChangeable(): void {
    if (this.isChangeable) return;
    throw new FinishedError(
      "encrypted",
      "Whoever made this PDF forbids changes to it without the owner's password. Save it without restrictions, and bring it again.",
    );
  }

  /**
   * Has the library encrypt what it writes as streams, and encrypts the strings of objects that are to be written in none.
   * @returns whether objects are to be written in streams, as the version of the file has them (7.5.7)
   */
  encrypt({ context }: PDFDocument, written: readonly PDFRef[]): boolean {
    const [large = 1, small = 0] = context.header.getVersionString().split(".").map(Number);
    const areInStreams = large > 1 || small >= 5;
    context.security = this.security;
    for (const ref of written) {
      const object = context.lookup(ref);
      const isInStream = areInStreams && ref.generationNumber === 0 && !isWrittenAlone(object);
      if (!object || isInStream) continue;
      const encrypted = this.security.getEncryptFn(ref.objectNumber, ref.generationNumber);
      eachString(object, (bytes) => PDFHexString.of(bytesToHex(encrypted(bytes))));
    }
    return areInStreams;
  }
}

/** What the library puts into no stream. */
function isWrittenAlone(object: PDFObject | undefined): boolean {
  return object instanceof PDFCatalog || object instanceof PDFPageTree || object instanceof PDFPageLeaf;
}

/** Ways to encrypt, as the library calls them: RC4, AES of 128 bits, AES of 256. */
type Way = 2 | 4 | 5;

/** The cipher of strings and streams alike (7.6.5). */
function cipherOf(said: PDFDict): { way: Way; bits: number } {
  const version = numberOf(said, "V");
  if (version === 1) return { way: 2, bits: 40 };
  if (version === 2) return { way: 2, bits: entry(said, "Length") ? numberOf(said, "Length") : 40 };
  const [strings, streams] = [nameIn(said, "StrF"), nameIn(said, "StmF")];
  if ((version !== 4 && version !== 5) || strings === null || strings !== streams) throw unknown();
  switch (nameIn(dictionaryIn(dictionaryIn(said, "CF"), strings), "CFM")) {
    case "V2":
      return { way: 2, bits: 128 };
    case "AESV2":
      return { way: 4, bits: 128 };
    case "AESV3":
      return { way: 5, bits: 256 };
    default:
      throw unknown();
  }
}

/** The key where no password is needed to open (algorithm 2). */
function keyOfRevision4(said: PDFDict, revision: number, id: Uint8Array, bits: number): Uint8Array {
  const length = revision === 2 ? 5 : bits / 8;
  const permissions = new Uint8Array(4);
  new DataView(permissions.buffer).setInt32(0, numberOf(said, "P"), true);
  const isBare = revision >= 4 && String(entry(said, "EncryptMetadata")) === "false";
  let key: Uint8Array = md5(
    concatBytes(
      padding,
      bytesIn(said, "O").subarray(0, 32),
      permissions,
      id,
      new Uint8Array(isBare ? 4 : 0).fill(255),
    ),
  );
  if (revision >= 3) for (let i = 0; i < 50; i++) key = md5(key.subarray(0, length));
  return key.subarray(0, length);
}

/** The key of AES of 256 bits where no password is needed (ISO 32000-2, algorithms 2.A and 2.B). */
function keyOfRevision6(said: PDFDict, revision: number): Uint8Array {
  const salt = bytesIn(said, "U").slice(40, 48);
  const key = revision === 5 ? sha256(salt) : hardened(salt);
  return cbc(key, new Uint8Array(16), { disablePadding: true }).decrypt(bytesIn(said, "UE").slice(0, 32));
}

/** Algorithm 2.B with an empty password. */
function hardened(salt: Uint8Array): Uint8Array {
  let key = sha256(salt);
  for (let round = 0, last = 0; round < 64 || last > round - 32; round++) {
    const many = concatBytes(...Array<Uint8Array>(64).fill(key));
    const cipher = cbc(key.slice(0, 16), key.slice(16, 32), { disablePadding: true });
    const encrypted = cipher.encrypt(many);
    const rest = encrypted.subarray(0, 16).reduce((sum, byte) => sum + byte, 0) % 3;
    key = [sha256, sha384, sha512][rest]!(encrypted);
    last = encrypted.at(-1)!;
  }
  return key.subarray(0, 32);
}

/** Puts something in place of each string within an object that is written as a part of it. */
function eachString(object: PDFObject, make: (bytes: Uint8Array) => PDFObject): void {
  const put = (value: PDFObject, set: (made: PDFObject) => void): void => {
    if (value instanceof PDFString || value instanceof PDFHexString) set(make(value.asBytes()));
    else eachString(value, make);
  };
  if (object instanceof PDFDict)
    for (const [name, value] of object.entries()) put(value, (made) => object.set(name, made));
  if (object instanceof PDFArray)
    object.asArray().forEach((value, i) => put(value, (made) => object.set(i, made)));
}

function numberOf(dictionary: PDFDict, name: string): number {
  const value = entry(dictionary, name);
  if (!(value instanceof PDFNumber)) throw unknown();
  return value.asNumber();
}

function bytesIn(dictionary: PDFDict, name: string): Uint8Array {
  return bytesOf(entry(dictionary, name));
}

function bytesOf(value: PDFObject | undefined): Uint8Array {
  if (value instanceof PDFString || value instanceof PDFHexString) return value.asBytes();
  throw unknown();
}

function unknown(): FinishedError {
  return new FinishedError(
    "encrypted",
    "This PDF is locked by encryption, and what is written into it could not be read. Save it without a password or restrictions, and bring it again.",
  );
}
