import { dictionary } from "@zxcvbn-ts/language-common";
import { Problem } from "../errors/problem.ts";

const least = 10;
const most = 200;
const common = new Set(dictionary["passwords-common"]);
/** Shorter words are within many good passwords. */
const shortestCommon = 6;

/**
 * Makes sure that a password may be taken (OWASP ASVS 4.0.3, 2.1.1, 2.1.2, 2.1.7, from memory).
 * @param own what others know of its owner, which it may not be
 * @throws Problem that says what is wrong with it
 */
export function assertPassword(password: string, field: string, own: readonly string[]): void {
  const refuse = (message: string): never => {
    throw new Problem(400, "invalid", message, field);
  };
  if ([...password].length < least) refuse(`A password has at least ${least} characters.`);
  if (password.length > most) refuse(`A password has at most ${most} characters.`);
  if (new Set(password.replace(/\s/gu, "")).size < 2)
    refuse("A password is more than one letter again and again.");
  const plain = password.toLowerCase();
  // Signs and a few digits behind a common one are tried next.
  const tried = [plain, plain.replace(/[!?.]+$/, ""), plain.replace(/\d{0,4}[!?.]*$/, "")];
  if (tried.some((word) => word.length >= shortestCommon && common.has(word)))
    refuse("This password is on the lists that are tried first. Choose another one, such as four words.");
  if (own.some((word) => word.toLowerCase() === plain))
    refuse("Your name or address is no password: others know them.");
}
