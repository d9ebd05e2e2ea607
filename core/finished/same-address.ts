/**
 * Whether two addresses are the same, however their letters are written (RFC 3986, 6.2.2.2). Signs that part an address
 * are others than those that are told by their numbers.
 */
export function sameAddress(one: string, other: string): boolean {
  return one === other || plain(one) === plain(other);
}

function plain(given: string): string {
  // What says no scheme is taken for the web’s.
  const address = given.startsWith("//") ? `https:${given}` : given;
  const whole = URL.canParse(address) ? new URL(address).href : address;
  try {
    return decodeURI(whole);
  } catch {
    return whole;
  }
}
