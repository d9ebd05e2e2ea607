import { isIPv6, type LookupFunction } from "node:net";
import { createSecureContext } from "node:tls";
import { buildConnector } from "undici";
import { ReachFailure, type Endpoint } from "./resolver.ts";

/** So long one of several addresses of a host is waited for: a connection's first packet is sent again after a second. */
const attemptMs = 3_000;

/**
 * Connects to what a host's name was judged to be, and resolves nothing again. A host with several addresses is asked at
 * the next where one gives no connection, families in turn, as browsers do (RFC 8305, section 4): many a server has an
 * address that not everybody reaches.
 * @param timeout for a connection in all, in milliseconds
 * @param ca trusted for stand-ins besides the usual ones
 * @param secured is told of each connection that is secure
 */
export function judgedConnector(
  endpointOf: (host: string, port: number, secure: boolean) => Promise<Endpoint>,
  timeout: number,
  ca: string | undefined,
  secured: (host: string, port: number, socket: Parameters<buildConnector.Callback>[1]) => void,
): buildConnector.connector {
  const judged = new Map<string, string[]>();
  // It is asked within the call that connects; what was not judged is not connected to.
  const lookup: LookupFunction = (host, _options, answer) => {
    const addresses = judged.get(host) ?? [];
    answer(
      addresses.length > 0 ? null : new ReachFailure({ code: "unknown-name" }),
      addresses.map((address) => ({ address, family: isIPv6(address) ? 6 : 4 })),
    );
  };
  // The certificates that are trusted are read once, not for every connection.
  const trusting = (trusted?: string): buildConnector.connector =>
    buildConnector({
      timeout,
      allowH2: false,
      secureContext: createSecureContext({ ca: trusted }),
      lookup,
      autoSelectFamily: true,
      autoSelectFamilyAttemptTimeout: Math.max(1, Math.min(attemptMs, Math.floor(timeout / 3))),
    });
  const plain = trusting();
  const standIn = ca ? trusting(ca) : plain;
  return (options, callback) => {
    const secure = options.protocol === "https:";
    const port = Number(options.port || (secure ? 443 : 80));
    endpointOf(options.hostname, port, secure).then(
      ({ addresses, port: target, isStandIn }) => {
        const connect = isStandIn ? standIn : plain;
        const [first] = addresses;
        judged.set(options.hostname, addresses);
        connect(
          {
            ...options,
            hostname: addresses.length === 1 ? first : options.hostname,
            port: String(target),
            servername: secure ? options.hostname : undefined,
          } as buildConnector.Options,
          (...answer) => {
            if (answer[1] && secure) secured(options.hostname, port, answer[1]);
            callback(...answer);
          },
        );
        judged.delete(options.hostname);
      },
      (error: Error) => callback(error, null),
    );
  };
}
