/** Text of an address with its letters in place of their numbers (RFC 3986, 2.1); what is not valid UTF-8 stays as it is. */
export function percentDecoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
