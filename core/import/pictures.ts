/** Whether bytes are a picture that a book shows: PNG, JPEG or GIF, by their first bytes. */
export function isPicture([a, b, c]: Uint8Array): boolean {
  return (a === 0x89 && b === 0x50) || (a === 0xff && b === 0xd8) || (a === 0x47 && b === 0x49 && c === 0x46);
}
