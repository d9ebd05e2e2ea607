/** The ports that may be asked unless the server is configured otherwise. */
export const defaultPorts: readonly number[] = [80, 443, 8080, 8443];

/** Why an address may not be asked; `range` is the name of the refused block, from its registry. */
export type PolicyRefusal =
  | { code: "scheme"; scheme: string }
  | { code: "credentials" }
  | { code: "port"; port: number }
  | { code: "not-public"; range: string };

// RFC 6890 and the IANA special-purpose registries it set up: every block that is not globally reachable.
const refusedV4: readonly [string, string][] = [
  ["0.0.0.0/8", "this network"],
  ["10.0.0.0/8", "private use"],
  ["100.64.0.0/10", "shared address space"],
  ["127.0.0.0/8", "loopback"],
  ["169.254.0.0/16", "link local"],
  ["172.16.0.0/12", "private use"],
  ["192.0.0.0/24", "protocol assignments"],
  ["192.0.2.0/24", "documentation"],
  ["192.31.196.0/24", "AS112"],
  ["192.52.193.0/24", "AMT"],
  ["192.88.99.0/24", "6to4 relay anycast"],
  ["192.168.0.0/16", "private use"],
  ["192.175.48.0/24", "AS112"],
  ["198.18.0.0/15", "benchmarking"],
  ["198.51.100.0/24", "documentation"],
  ["203.0.113.0/24", "documentation"],
  ["224.0.0.0/4", "multicast"],
  ["240.0.0.0/4", "reserved"],
];

// Only 2000::/3 is global unicast; what is refused inside it is listed.
const refusedV6: readonly [string, string][] = [
  ["2001::/23", "protocol assignments"],
  ["2001:db8::/32", "documentation"],
  ["2002::/16", "6to4"],
  ["2620:4f:8000::/48", "AS112"],
  ["3fff::/20", "documentation"],
];

const blocksV4 = refusedV4.map(([block, range]) => ({ ...parseBlock(block, parseIPv4, 32), range }));
const blocksV6 = refusedV6.map(([block, range]) => ({ ...parseBlock(block, parseIPv6, 128), range }));
const globalUnicast = parseBlock("2000::/3", parseIPv6, 128);
const mapped = parseBlock("::ffff:0:0/96", parseIPv6, 128);
const translated = parseBlock("64:ff9b::/96", parseIPv6, 128);

interface Block {
  prefix: bigint;
  shift: bigint;
}

function parseBlock(block: string, parse: (text: string) => bigint | null, bits: number): Block {
  const [address, length] = block.split("/") as [string, string];
  const shift = BigInt(bits - Number(length));
  return { prefix: parse(address)! >> shift, shift };
}

function inBlock(address: bigint, block: Block): boolean {
  return address >> block.shift === block.prefix;
}

/** The 32 bits of a dotted IPv4 address, or null. Only the four-part decimal form is read. */
function parseIPv4(text: string): bigint | null {
  const parts = text.split(".");
  if (parts.length !== 4 || !parts.every((part) => /^\d{1,3}$/.test(part) && Number(part) < 256)) return null;
  return parts.reduce((sum, part) => (sum << 8n) | BigInt(part), 0n);
}

/** The 128 bits of an IPv6 address (RFC 4291, with an IPv4 tail and a zone allowed), or null. */
function parseIPv6(text: string): bigint | null {
  let address = text.replace(/%.*$/, "");
  const tail = /^(.*:)([\d.]+\.[\d.]+)$/.exec(address);
  if (tail) {
    const v4 = parseIPv4(tail[2]!);
    if (v4 === null) return null;
    address = `${tail[1]!}${(v4 >> 16n).toString(16)}:${(v4 & 0xffffn).toString(16)}`;
  }
  const halves = address.split("::");
  if (halves.length > 2) return null;
  const groups = (half: string | undefined): string[] => (half ? half.split(":") : []);
  const head = groups(halves[0]);
  const rest = groups(halves[1]);
  const missing = 8 - head.length - rest.length;
  if (halves.length === 2 ? missing < 1 : missing !== 0) return null;
  const all = [...head, ...Array<string>(Math.max(0, missing)).fill("0"), ...rest];
  if (!all.every((group) => /^[0-9a-f]{1,4}$/i.test(group))) return null;
  return all.reduce((sum, group) => (sum << 16n) | BigInt(`0x${group}`), 0n);
}

/**
 * Judges an IP address, as a resolver gave it, before a connection to it is made. IPv4-mapped and
 * NAT64 addresses are judged by the IPv4 address inside them.
 * @returns null where it may be asked, or why not. What is not an IP address is refused.
 */
export function judgeAddress(ip: string): PolicyRefusal | null {
  const v4 = parseIPv4(ip);
  if (v4 !== null) return judgeV4(v4);
  const v6 = parseIPv6(ip);
  if (v6 === null) return { code: "not-public", range: "not an address" };
  if (inBlock(v6, mapped) || inBlock(v6, translated)) return judgeV4(v6 & 0xffffffffn);
  if (!inBlock(v6, globalUnicast)) return { code: "not-public", range: "not global unicast" };
  const block = blocksV6.find((candidate) => inBlock(v6, candidate));
  return block ? { code: "not-public", range: block.range } : null;
}

function judgeV4(address: bigint): PolicyRefusal | null {
  const block = blocksV4.find((candidate) => inBlock(address, candidate));
  return block ? { code: "not-public", range: block.range } : null;
}

/**
 * Judges a URL before its name is resolved: only http and https, only the given ports, no
 * credentials. To be asked again at every hop of a redirect.
 */
export function judgeUrl(url: URL, ports: readonly number[] = defaultPorts): PolicyRefusal | null {
  if (url.protocol !== "http:" && url.protocol !== "https:") return { code: "scheme", scheme: url.protocol };
  if (url.username !== "" || url.password !== "") return { code: "credentials" };
  // Of one's own machine no port is public, whichever it is.
  const host = url.hostname.replace(/^\[|\]$/g, "");
  if (/(?:^|\.)localhost$/i.test(host)) return { code: "not-public", range: "loopback" };
  const refusal = parseIPv4(host) !== null || host.includes(":") ? judgeAddress(host) : null;
  if (refusal) return refusal;
  const port = url.port === "" ? (url.protocol === "https:" ? 443 : 80) : Number(url.port);
  return ports.includes(port) ? null : { code: "port", port };
}

/** Whether a host is under a name kept for examples and tests (RFC 2606), which only the stand-ins answer. */
export function isReservedName(host: string): boolean {
  return /(^|\.)(example|test)\.?$/i.test(host);
}
