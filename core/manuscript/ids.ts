const alphabet = "abcdefghijkmnpqrstuvwxyz23456789";

/**
 * A new random id of 12 characters (60 bits). It begins with a letter and holds only letters and
 * digits, so it serves unchanged as an XML id, a PDF destination name and a URL fragment.
 */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  let id = alphabet[bytes[0]! % 24]!;
  for (const byte of bytes.subarray(1)) id += alphabet[byte % 32];
  return id;
}
