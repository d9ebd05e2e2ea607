import { assertLayout, type PageLayout } from "../../manuscript/page-layout.ts";

/** One thing that an author chooses for an export: what may be chosen, what is where nothing was, and what it is about. */
export type Option =
  | { kind: "flag"; default: boolean; about: string }
  | { kind: "choice"; among: readonly string[]; default: string; about: string }
  /** How pages are laid out; null for the layout of the book. */
  | { kind: "layout"; default: null; about: string };

export type Options = Readonly<Record<string, Option>>;

/** What was chosen for each of some options. */
export type Chosen<O extends Options> = {
  -readonly [name in keyof O]: O[name] extends { kind: "flag" }
    ? boolean
    : O[name] extends { kind: "choice"; among: readonly (infer Value)[] }
      ? Value
      : PageLayout | null;
};

/** An option that is on or off. */
export function flag(initial: boolean, about: string): { kind: "flag"; default: boolean; about: string } {
  return { kind: "flag", default: initial, about };
}

/** An option that is one of some; the first is the default. */
export function choice<const Values extends readonly [string, ...string[]]>(
  among: Values,
  about: string,
): { kind: "choice"; among: Values; default: Values[0]; about: string } {
  return { kind: "choice", among, default: among[0], about };
}

/** A choice that all formats have which do not carry companion files inside. */
export const companions = choice(["beside", "left-out"], "Whether companion files come along.");

/**
 * Says whether a value may be chosen for an option.
 * @throws RangeError with what is wrong
 */
export function assertOption(name: string, option: Option, value: unknown): void {
  if (option.kind === "flag" && typeof value !== "boolean")
    throw new RangeError(`The option “${name}” is true or false.`);
  if (option.kind === "choice" && !option.among.includes(value as string))
    throw new RangeError(`The option “${name}” is one of ${option.among.join(", ")}.`);
  if (option.kind === "layout" && value !== null) assertLayout(value);
}

/** The default of each option. */
export function defaultsOf<O extends Options>(options: O): Chosen<O> {
  const defaults = Object.entries(options).map(([name, option]) => [name, option.default]);
  return Object.fromEntries(defaults) as Chosen<O>;
}
