const alphabet = "abcdefghijkmnpqrstuvwxyz23456789";
const length = 12;

/** Random bytes that wait for their turn: to ask for a thousand takes as long as to ask for twelve. */
const pool = new Uint8Array(length * 256);
let used = pool.length;

/**
 * A new random id of 12 characters (60 bits). It begins with a letter and holds only letters and
 * digits, so it serves unchanged as an XML id, a PDF destination name and a URL fragment.
 */
export function newId(): string {
  if (used === pool.length) {
    crypto.getRandomValues(pool);
    used = 0;
  }
  let id = alphabet[pool[used]! % 24]!;
  for (let i = 1; i < length; i++) id += alphabet[pool[used + i]! % 32];
  used += length;
  return id;
}
