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
import { bytesToHex } from "@noble/hashes/utils.js";
import { FinishedError } from "../errors.ts";
import { bytesOf, keyByPassword } from "./file-keys.ts";
import { dictionaryIn, entry, nameIn } from "./open-pdf.ts";

/** The permissions to change content, and to add and change annotations (table 22). */
const mayChange = 0b1000;
const mayAnnotate = 0b100000;

/**
 * How a PDF is encrypted: what is appended to it is encrypted with the same key (ISO 32000-1, 7.6;
 * ISO 32000-2, 7.6.4.3.3 for AES of 256 bits).
 */
export class FileEncryption {
  private constructor(
    private readonly security: PDFSecurity,
    private readonly isChangeable: boolean,
  ) {}

  /**
   * @param document the file, opened without being decrypted
   * @param password to open it, or its owner’s; empty where everybody may open it
   * @throws FinishedError `password` where it opens with another one, `encrypted` where it is encrypted in a way that is not known
   */
  static of({ context }: PDFDocument, password: string): FileEncryption {
    const said = context.lookup(context.trailerInfo.Encrypt);
    const [id] = context.lookup(context.trailerInfo.ID, PDFArray).asArray();
    if (!(said instanceof PDFDict) || nameIn(said, "Filter") !== "Standard") throw unknown();
    const revision = numberOf(said, "R");
    const permissions = numberOf(said, "P");
    const cipher = cipherOf(said);
    const encryptsMetadata = String(entry(said, "EncryptMetadata")) !== "false";
    const facts = {
      said,
      revision,
      permissions,
      bits: cipher.bits,
      id: bytesOf(context.lookup(id)),
      encryptsMetadata,
    };
    const found = keyByPassword(facts, password);
    if (!found) throw wrongPassword(password);
    const isChangeable = found.isOwners || (permissions & (mayChange | mayAnnotate)) !== 0;
    const security = Object.create(PDFSecurity.prototype) as PDFSecurity;
    return new FileEncryption(
      Object.assign(security, {
        encryption: { V: cipher.way },
        encryptionKey: found.key,
        keyBits: cipher.bits,
      }),
      isChangeable,
    );
  }

  /** @throws FinishedError `encrypted` where it forbids that its links are changed */
  assertChangeable(): void {
    if (this.isChangeable) return;
    throw new FinishedError(
      "encrypted",
      "Whoever made this PDF forbids changes to it without the owner's password. Bring it again with that, or save it without restrictions.",
    );
  }

  /**
   * Has the library encrypt what it writes as streams, and encrypts the strings of objects that are to be written in none.
   * @param areInStreams whether objects are written in streams (7.5.7)
   */
  encrypt({ context }: PDFDocument, written: readonly PDFRef[], areInStreams: boolean): void {
    context.security = this.security;
    for (const ref of written) {
      const object = context.lookup(ref);
      const isInStream = areInStreams && ref.generationNumber === 0 && !isWrittenAlone(object);
      if (!object || isInStream) continue;
      const encrypted = this.security.getEncryptFn(ref.objectNumber, ref.generationNumber);
      eachString(object, (bytes) => PDFHexString.of(bytesToHex(encrypted(bytes))));
    }
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

/** What is said of a password with which a file does not open. */
export function wrongPassword(password: string): FinishedError {
  const message =
    password === ""
      ? "This PDF opens with a password only. Bring it again with its password, or save it without one."
      : "This is not the password with which the PDF opens. Give another, and bring it again.";
  return new FinishedError("password", message);
}

function unknown(): FinishedError {
  return new FinishedError(
    "encrypted",
    "This PDF is locked by encryption, and what is written into it could not be read. Save it without a password or restrictions, and bring it again.",
  );
}
