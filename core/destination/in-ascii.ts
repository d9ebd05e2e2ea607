/** An address with its letters beyond ASCII, blanks and control characters by their numbers (RFC 3986, 2.1 and 2.5). */
export function inAscii(address: string): string {
  return address.replace(/[^\u0021-\u007e]+/g, (run) => encodeURIComponent(run));
}
