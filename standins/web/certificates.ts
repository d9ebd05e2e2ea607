import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { createSecureContext, type SecureContext } from "node:tls";
import { generate } from "selfsigned";
import type { Host } from "./answering.ts";

export interface Certificates {
  /** The certificate for a host, as its state asks. */
  contextFor: (state: Host["certificate"]) => SecureContext;
  /** What whoever asks the hosts has to trust, as PEM. */
  authority: string;
}

const day = 24 * 60 * 60 * 1000;
const endsIn = 13;
/** None is used so long that the one that ends soon has ended. */
const usableFor = 6 * day;

interface Pair {
  private: string;
  cert: string;
}

/** What is kept of one start for the next, so that a server that trusts the first trusts the second too. */
interface Kept {
  names: string[];
  madeAt: number;
  pairs: [right: Pair, expired: Pair, selfSigned: Pair, ending: Pair, unchained: Pair];
}

/**
 * The certificates of the stand-in web: one that is right for the given names, and those that are not, or not for long.
 * @param file where they are kept; new ones are made where it has none that can be used
 */
export async function keptCertificates(file: string, names: string[]): Promise<Certificates> {
  const kept = existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as Kept) : null;
  const isUsable =
    kept?.pairs.length === 5 && kept.names.join() === names.join() && Date.now() - kept.madeAt < usableFor;
  if (isUsable) return certificatesOf(kept.pairs);
  const pairs = await makePairs(names);
  writeFileSync(file, JSON.stringify({ names, madeAt: Date.now(), pairs } satisfies Kept), { mode: 0o600 });
  return certificatesOf(pairs);
}

async function makePairs(names: string[]): Promise<Kept["pairs"]> {
  const make = (commonName: string, altNames: string[], from = -1, to = 365, ca?: Pair) =>
    generate([{ name: "commonName", value: commonName }], {
      keySize: 2048,
      algorithm: "sha256",
      ...(ca && { ca: { key: ca.private, cert: ca.cert } }),
      notBeforeDate: new Date(Date.now() + from * day),
      notAfterDate: new Date(Date.now() + to * day),
      extensions: [
        { name: "basicConstraints", cA: true },
        { name: "subjectAltName", altNames: altNames.map((value) => ({ type: 2, value })) },
      ],
    });
  const signer = await make("Vennet stand-in web (nobody shows it)", []);
  return Promise.all([
    make("Vennet stand-in web", names),
    make("Vennet stand-in web (expired)", names, -60, -30),
    make("Vennet stand-in web (signed by itself)", names),
    make("Vennet stand-in web (ending soon)", names, -1, endsIn),
    make("Vennet stand-in web (signed by another)", names, -1, 365, signer),
  ]);
}

function certificatesOf(pairs: Kept["pairs"]): Certificates {
  const [right, expired, , ending] = pairs;
  const [good, ...others] = pairs.map(({ private: key, cert }) => createSecureContext({ key, cert }));
  const states = ["expired", "self-signed", "ending", "unchained"] as const;
  const byState = new Map<Host["certificate"], SecureContext>(states.map((state, i) => [state, others[i]!]));
  return {
    contextFor: (state) => byState.get(state) ?? good!,
    // The expired one is trusted, so that nothing but its date is wrong.
    authority: `${right.cert.trim()}\n${expired.cert.trim()}\n${ending.cert.trim()}\n`,
  };
}
