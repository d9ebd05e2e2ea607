import { createHash, randomBytes } from "node:crypto";

/** A new secret of 256 bits for a cookie or a link. */
export function newToken(): string {
  return randomBytes(32).toString("base64url");
}

/** By what a token is known in the database, which nobody who reads that can sign in with. */
export function hashToken(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}
