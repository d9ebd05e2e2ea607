import type { Failure } from "@vennet/core/reach/outcome";
import { errors } from "undici";
import { ReachFailure } from "./resolver.ts";

const tlsFailures: Record<string, "tls-expired" | "tls-name" | "tls-self-signed" | "tls-chain" | "tls-none"> =
  {
    CERT_HAS_EXPIRED: "tls-expired",
    ERR_TLS_CERT_ALTNAME_INVALID: "tls-name",
    DEPTH_ZERO_SELF_SIGNED_CERT: "tls-self-signed",
    SELF_SIGNED_CERT_IN_CHAIN: "tls-self-signed",
    UNABLE_TO_VERIFY_LEAF_SIGNATURE: "tls-chain",
    UNABLE_TO_GET_ISSUER_CERT: "tls-chain",
    UNABLE_TO_GET_ISSUER_CERT_LOCALLY: "tls-chain",
    // What comes is no TLS (OpenSSL's names).
    ERR_SSL_WRONG_VERSION_NUMBER: "tls-none",
    ERR_SSL_PACKET_LENGTH_TOO_LONG: "tls-none",
    ERR_SSL_HTTP_REQUEST: "tls-none",
  };

/** Why no answer came, by what the runtime and undici throw. */
export function failureOf(error: unknown): Failure {
  if (error instanceof ReachFailure) return error.failure;
  // Each address of a host failed: that nothing leads to one of them says less than what another did.
  if (error instanceof AggregateError) {
    const each = error.errors.map(failureOf);
    return each.find(({ code }) => code !== "dropped") ?? each[0] ?? { code: "dropped" };
  }
  const code = (error as NodeJS.ErrnoException).code ?? "";
  if (error instanceof errors.HeadersTimeoutError || error instanceof errors.BodyTimeoutError)
    return { code: "timeout", connected: true };
  if (error instanceof errors.ConnectTimeoutError || code === "ETIMEDOUT") return { code: "timeout" };
  if (code === "ECONNREFUSED") return { code: "refused" };
  if (
    error instanceof errors.SocketError ||
    ["ECONNRESET", "EPIPE", "EHOSTUNREACH", "ENETUNREACH"].includes(code)
  ) {
    return { code: "dropped" };
  }
  const fault = tlsFailures[code];
  if (fault) return { code: fault };
  if (/^ERR_SSL_|^EPROTO$/.test(code)) return { code: "tls-handshake", detail: code };
  if (/CERT|SSL|TLS|SELF_SIGNED/.test(code)) return { code: "tls", detail: code };
  return { code: "protocol", detail: (error as Error).message };
}
