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

/** Makes the certificates of the stand-in web: one that is right for the given names, and three that are not. */
export async function makeCertificates(names: string[]): Promise<Certificates> {
  const make = (commonName: string, altNames: string[], from = -1, to = 365) =>
    generate([{ name: "commonName", value: commonName }], {
      keySize: 2048,
      algorithm: "sha256",
      notBeforeDate: new Date(Date.now() + from * day),
      notAfterDate: new Date(Date.now() + to * day),
      extensions: [
        { name: "basicConstraints", cA: true },
        { name: "subjectAltName", altNames: altNames.map((value) => ({ type: 2, value })) },
      ],
    });
  const [right, expired, selfSigned] = await Promise.all([
    make("Vennet stand-in web", names),
    make("Vennet stand-in web, expired", names, -60, -30),
    make("Vennet stand-in web, signed by itself", names),
  ]);
  const [good, late, own] = [right, expired, selfSigned].map(({ private: key, cert }) =>
    createSecureContext({ key, cert }),
  ) as [SecureContext, SecureContext, SecureContext];
  return {
    contextFor: (state) => (state === "expired" ? late : state === "self-signed" ? own : good),
    // The expired one is trusted, so that nothing but its date is wrong.
    authority: `${right.cert.trim()}\n${expired.cert.trim()}\n`,
  };
}
