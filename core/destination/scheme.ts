const schemePattern = /^[a-z][a-z0-9+.-]*:/i;

/**
 * The scheme of an address, in lower case with its colon, or null where it has none. Characters that
 * the WHATWG URL parser removes (tabs, line ends, leading controls) are removed first, so that
 * `java\nscript:` is read as what a browser would make of it.
 */
export function schemeOf(address: string): string | null {
  return schemePattern.exec(withoutIgnoredCharacters(address))?.[0].toLowerCase() ?? null;
}

/** An address without the characters that the WHATWG URL parser drops before it looks at the scheme. */
export function withoutIgnoredCharacters(address: string): string {
  return address.replace(/^[\u0000-\u0020]+|[\u0000-\u0020]+$/g, "").replace(/[\t\n\r]/g, "");
}
