import type { Answer } from "../answers.ts";
import { page, type Host } from "./answering.ts";

let release: () => void = () => undefined;
let held: Promise<void> = Promise.resolve();

/** Makes the held hosts wait with their answers from now on. */
export function hold(): void {
  held = new Promise((resolve) => (release = resolve));
}

/** Lets the held hosts answer, those who wait first. */
export function letGo(): void {
  release();
}

const shown = page("A page that waited");
const waiting: Answer = (request, response, url) => void held.then(() => shown(request, response, url));

/** A host that answers when it is let: `held-1.hesterley.test` and so on, for tests of what is under way. */
export function heldHost(name: string): Host | null {
  return /^held-\d+\.hesterley\.test$/.test(name) ? { certificate: "none", otherwise: waiting } : null;
}
