import { PDFHexString, PDFString, type PDFDict, type PDFObject } from "@cantoo/pdf-lib";
import { cbc } from "@noble/ciphers/aes.js";
import { md5 } from "@noble/hashes/legacy.js";
import { sha256, sha384, sha512 } from "@noble/hashes/sha2.js";
import { concatBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { entry } from "./open-pdf.ts";
import { rc4 } from "./rc4.ts";

/** The key of an encrypted PDF, as a password gives it. */
export interface FileKey {
  key: Uint8Array;
  /** Whether it is the owner’s password, to whom nothing is forbidden. */
  isOwners: boolean;
}

/** What is put behind a password (ISO 32000-1, 7.6.3.3, algorithm 2). */
const padding = Uint8Array.of(
  ...[0x28, 0xbf, 0x4e, 0x5e, 0x4e, 0x75, 0x8a, 0x41, 0x64, 0x00, 0x4e, 0x56, 0xff, 0xfa, 0x01, 0x08],
  ...[0x2e, 0x2e, 0x00, 0xb6, 0xd0, 0x68, 0x3e, 0x80, 0x2f, 0x0c, 0xa9, 0xfe, 0x64, 0x53, 0x69, 0x7a],
);
const none = new Uint8Array();

/** What the dictionary of the encryption says that the key follows from. */
export interface KeyFacts {
  said: PDFDict;
  revision: number;
  permissions: number;
  bits: number;
  /** The first part of the file’s identifier (14.4). */
  id: Uint8Array;
  encryptsMetadata: boolean;
}

/** The key that a password gives; null where it is neither the one to open the file nor its owner’s. */
export function keyByPassword(facts: KeyFacts, password: string): FileKey | null {
  return facts.revision >= 5 ? keyOfRevision6(facts, password) : keyOfRevision4(facts, password);
}

/** RC4, and AES of 128 bits (algorithms 2, 6 and 7). */
function keyOfRevision4(facts: KeyFacts, password: string): FileKey | null {
  const own = padded(password);
  const key = keyOfPadded(facts, own);
  if (opens(facts, key)) return { key, isOwners: false };
  const usersKey = keyOfPadded(facts, passwordInOwners(facts, own));
  return opens(facts, usersKey) ? { key: usersKey, isOwners: true } : null;
}

/** A password as those ways have it: 32 bytes, letters as Latin-1 has them. */
function padded(password: string): Uint8Array {
  const letters = Uint8Array.from(password, (letter) => letter.charCodeAt(0) & 255);
  return concatBytes(letters, padding).subarray(0, 32);
}

function keyOfPadded(
  { said, revision, permissions, bits, id, encryptsMetadata }: KeyFacts,
  own: Uint8Array,
): Uint8Array {
  const length = revision === 2 ? 5 : bits / 8;
  const flags = new Uint8Array(4);
  new DataView(flags.buffer).setInt32(0, permissions, true);
  const isBare = revision >= 4 && !encryptsMetadata;
  let key: Uint8Array = md5(
    concatBytes(own, bytesIn(said, "O").subarray(0, 32), flags, id, new Uint8Array(isBare ? 4 : 0).fill(255)),
  );
  if (revision >= 3) for (let i = 0; i < 50; i++) key = md5(key.subarray(0, length));
  return key.subarray(0, length);
}

/** Whether a key is the file’s (algorithms 4 and 5). */
function opens({ said, revision, id }: KeyFacts, key: Uint8Array): boolean {
  const told = bytesIn(said, "U");
  if (revision === 2) return isSame(rc4(key, padding), told.subarray(0, 32));
  let made: Uint8Array = md5(concatBytes(padding, id));
  for (let i = 0; i < 20; i++)
    made = rc4(
      key.map((byte) => byte ^ i),
      made,
    );
  return isSame(made, told.subarray(0, 16));
}

/** The password to open the file, which the owner’s gives (algorithm 7). */
function passwordInOwners({ said, revision, bits }: KeyFacts, own: Uint8Array): Uint8Array {
  let key: Uint8Array = md5(own);
  if (revision >= 3) for (let i = 0; i < 50; i++) key = md5(key);
  key = key.subarray(0, revision === 2 ? 5 : bits / 8);
  let made: Uint8Array = bytesIn(said, "O").slice(0, 32);
  for (let i = revision === 2 ? 0 : 19; i >= 0; i--)
    made = rc4(
      key.map((byte) => byte ^ i),
      made,
    );
  return made;
}

/** AES of 256 bits (ISO 32000-2, algorithms 2.A and 2.B). */
function keyOfRevision6({ said, revision }: KeyFacts, password: string): FileKey | null {
  const own = utf8ToBytes(password).subarray(0, 127);
  const [users, owners] = [bytesIn(said, "U").slice(0, 48), bytesIn(said, "O").slice(0, 48)];
  const hash = (salt: Uint8Array, more: Uint8Array): Uint8Array =>
    revision === 5 ? sha256(concatBytes(own, salt, more)) : hardened(own, salt, more);
  const keyIn = (name: string, salt: Uint8Array, more: Uint8Array): Uint8Array =>
    cbc(hash(salt, more), new Uint8Array(16), { disablePadding: true }).decrypt(
      bytesIn(said, name).slice(0, 32),
    );
  if (isSame(hash(users.subarray(32, 40), none), users.subarray(0, 32)))
    return { key: keyIn("UE", users.subarray(40, 48), none), isOwners: false };
  if (isSame(hash(owners.subarray(32, 40), users), owners.subarray(0, 32)))
    return { key: keyIn("OE", owners.subarray(40, 48), users), isOwners: true };
  return null;
}

/** Algorithm 2.B. @param more what the owner’s password is hashed with besides */
function hardened(password: Uint8Array, salt: Uint8Array, more: Uint8Array): Uint8Array {
  let key = sha256(concatBytes(password, salt, more));
  for (let round = 0, last = 0; round < 64 || last > round - 32; round++) {
    const many = concatBytes(...Array<Uint8Array>(64).fill(concatBytes(password, key, more)));
    const cipher = cbc(key.slice(0, 16), key.slice(16, 32), { disablePadding: true });
    const encrypted = cipher.encrypt(many);
    const rest = encrypted.subarray(0, 16).reduce((sum, byte) => sum + byte, 0) % 3;
    key = [sha256, sha384, sha512][rest]!(encrypted);
    last = encrypted.at(-1)!;
  }
  return key.subarray(0, 32);
}

function isSame(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((byte, i) => byte === b[i]);
}

function bytesIn(dictionary: PDFDict, name: string): Uint8Array {
  return bytesOf(entry(dictionary, name));
}

/** The bytes of a string. @throws TypeError where it is none */
export function bytesOf(value: PDFObject | undefined): Uint8Array {
  if (value instanceof PDFString || value instanceof PDFHexString) return value.asBytes();
  throw new TypeError("its encryption is not told as it has to be");
}
