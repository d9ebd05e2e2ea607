/** The `data:` address that holds some bytes (RFC 2397), in base64. */
export function dataAddress(mediaType: string, bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return `data:${mediaType};base64,${btoa(text)}`;
}
