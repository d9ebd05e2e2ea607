import { DestinationError } from "../errors.ts";
import { percentDecoded } from "../percent-decoded.ts";
import { schemeOf } from "../scheme.ts";
import type { DestinationKindOf } from "./kind.ts";

/** A telephone number. `address` is a `tel:` URI (RFC 3966). */
export interface TelephoneDestination {
  kind: "telephone";
  address: string;
}

// RFC 3966, section 3 (from memory): digits with visual separators, then parameters such as an extension.
const globalNumber = /^\+[-.()]*\d[-\d.()]*$/;
const localNumber = /^[-.()]*[\dA-F*#][-\dA-F*#.()]*$/i;
const parameters = /^(;[\w-]+(=[^;\s]+)?)*$/;
/** The most digits of an international number (ITU-T E.164), and the fewest that anybody writes of one. */
const mostDigits = 15;
const fewestDigits = 5;

/**
 * Reads a `tel:` URI.
 * @throws DestinationError `address` where it is not a number as RFC 3966 has it, or a local one that does not say where
 */
function telephoneDestination(address: string): TelephoneDestination {
  const [, number = "", rest = ""] = /^tel:([^;]*)(.*)$/is.exec(address) ?? [];
  const isGlobal = globalNumber.test(number);
  const digits = number.replace(/\D/g, "").length;
  if (!(isGlobal || localNumber.test(number)) || !parameters.test(rest) || digits > mostDigits)
    throw new DestinationError(
      "address",
      "That is not a telephone number. Write it with its country, as in +44 20 7946 0000.",
    );
  if (!isGlobal && !/;phone-context=/i.test(rest))
    throw new DestinationError(
      "address",
      "A number without its country works in one country only. Begin it with + and the country, as in +44 20 7946 0000.",
    );
  return { kind: "telephone", address: `tel:${number}${rest}` };
}

/** A `tel:` URI as people write it: with blanks, a zero in brackets for calls within the country, or two slashes. */
function fromWritten(address: string): TelephoneDestination {
  const [, number = "", rest = ""] = /^tel:[\s/]*([^;]*)(.*)$/is.exec(address) ?? [];
  const plain = percentDecoded(number)
    .trim()
    .replace(/\(0\)/, "")
    .replace(/[\s\u2010-\u2013-]+/g, "-");
  return telephoneDestination(`tel:${plain}${rest}`);
}

/** The number as it is written for people, with its extension. */
function readable({ address }: TelephoneDestination): string {
  const [number = "", ...rest] = address.replace(/^tel:/i, "").split(";");
  const extension = rest.find((field) => /^ext=/i.test(field))?.slice("ext=".length);
  return number.replace(/[-.]+/g, " ") + (extension === undefined ? "" : `, extension ${extension}`);
}

/** Telephone: a number that a reader's device can call (RFC 3966). */
export const telephone: DestinationKindOf<TelephoneDestination> = {
  schemes: ["tel:"],
  becomes: "Call the number, on devices that can.",
  fromAddress: fromWritten,
  fromTyped: (text) => {
    if (schemeOf(text) === "tel:") return { destination: fromWritten(text) };
    const isNumber = /^\+[\d\s().-]+$/.test(text) && text.replace(/\D/g, "").length >= fewestDigits;
    if (!isNumber) return null;
    return { destination: fromWritten(`tel:${text}`), mended: "tel: put before it" };
  },
  isPlain: (word) => /^tel:\+\d/i.test(word),
  assert: (_, text) => void telephoneDestination(text("address")),
  write: ({ address }) => address,
  name: readable,
  short: readable,
  asked: () => null,
  outside: ({ address }) => ({ kind: "address", address }),
};
