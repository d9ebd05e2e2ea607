/**
 * RC4 (RFC 6229 has its test vectors), by which PDFs were encrypted to version 1.5 (ISO 32000-1, 7.6.2). The ciphers of our
 * packages leave it out, since nothing new is to be encrypted by it.
 */
export function rc4(key: Uint8Array, bytes: Uint8Array): Uint8Array {
  const state = Uint8Array.from({ length: 256 }, (_, i) => i);
  const swap = (a: number, b: number): void => {
    [state[a], state[b]] = [state[b]!, state[a]!];
  };
  for (let i = 0, j = 0; i < 256; i++) {
    j = (j + state[i]! + key[i % key.length]!) & 255;
    swap(i, j);
  }
  let [i, j] = [0, 0];
  return bytes.map((byte) => {
    i = (i + 1) & 255;
    j = (j + state[i]!) & 255;
    swap(i, j);
    return byte ^ state[(state[i]! + state[j]!) & 255]!;
  });
}
