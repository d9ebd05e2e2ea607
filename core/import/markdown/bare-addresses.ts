import type { gfmHtml } from "micromark-extension-gfm";

type HtmlExtension = ReturnType<typeof gfmHtml>;
type Token = Parameters<NonNullable<NonNullable<HtmlExtension["exit"]>["data"]>>[0];

/** Addresses as GFM has them without any sign around them (GFM 0.29, 6.9), and mailboxes. */
const bare =
  /(?<![\da-z])(?:https?:\/\/|www\.)[^\s<]+|(?<![\w+\-.@])[\w+\-.]+@[\w-]+(?:\.[\w-]+)*\.[\w-]*[a-z]/gi;

/** Words of links, where they lead, what is said of them, and of listings their languages, as micromark calls them. */
const notPlain = [
  "labelText",
  "resourceDestination",
  "resourceTitle",
  "referenceString",
  "definitionLabel",
  "definitionDestination",
  "definitionTitle",
  "codeFencedFence",
];

/**
 * For the second reader: links on addresses that stand within square brackets, which its tokenizer leaves alone, since a
 * link might end there. What is escaped is another token, and no address.
 */
export function bareAddresses(): HtmlExtension {
  /** What was entered last that is no plain words, one within the other. */
  const apart: Token[] = [];
  const enter = (token: Token): void => void apart.push(token);
  const isApart = (offset: number): boolean => {
    // Definitions are told before what stands before them.
    while (apart.length > 0 && !(apart.at(-1)!.start.offset <= offset && offset < apart.at(-1)!.end.offset))
      apart.pop();
    return apart.length > 0;
  };
  return {
    enter: Object.fromEntries(notPlain.map((type) => [type, enter])),
    exit: {
      data(token) {
        const words = this.sliceSerialize(token);
        if (!/:\/\/|www\.|@/i.test(words) || isApart(token.start.offset)) {
          this.raw(this.encode(words));
          return;
        }
        let done = 0;
        for (const { 0: found, index } of words.matchAll(bare)) {
          const address = withoutEnd(found);
          if (!/[^\s.]\.[^\s.]/.test(address)) continue;
          this.raw(this.encode(words.slice(done, index)));
          this.tag(`<a href="${this.encode(hrefOf(address))}">`);
          this.raw(this.encode(address));
          this.tag("</a>");
          done = index + address.length;
        }
        this.raw(this.encode(words.slice(done)));
      },
    },
  };
}

function hrefOf(address: string): string {
  if (/^www\./i.test(address)) return `http://${address}`;
  return /^https?:/i.test(address) ? address : `mailto:${address}`;
}

/** Signs at an end belong to the sentence, closing brackets only where none opens in the address. */
function withoutEnd(address: string): string {
  let end = address;
  while (/[!"&'),.:;<>?\]}]$/.test(end)) {
    const count = (sign: string): number => end.split(sign).length;
    if (end.endsWith(")") && count("(") >= count(")")) break;
    end = end.slice(0, -1);
  }
  return end;
}
