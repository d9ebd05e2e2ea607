import type { SetInline } from "./set-data.ts";

/** The letters of the scripts in which the typesetter parts words at a line's end. */
const partedLetters = /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Georgian}\p{Mark}]+/u;

/**
 * A line's words, of which none is parted right where a link in it begins or ends: where one ends there, the typesetter
 * loses to which link what goes on belongs, and sets nothing of the whole book; where one begins, its area begins with
 * nothing. The letters behind stay together, and a soft hyphen that ends a link is left out.
 */
export function withEndsOfLinksKept(words: readonly SetInline[]): SetInline[] {
  let before: SetInline | null = null;
  return words.flatMap((one) => {
    if (one.kind === "anchor") return [one];
    const isWithinWord = before !== null && (isLink(before) || isLink(one)) && endsInLetter(before);
    const kept = isWithinWord ? startKept(one) : [one];
    before = one;
    return kept.map((part) => (part.kind === "link" ? withoutSoftEnd(part) : part));
  });
}

function isLink({ kind }: SetInline): boolean {
  return kind === "link" || kind === "raised-link" || kind === "text-link";
}

function endsInLetter(one: SetInline): boolean {
  if (one.kind === "link") return one.content.length > 0 && endsInLetter(one.content.at(-1)!);
  return "words" in one && /[\p{L}\p{M}\u00ad]$/u.test(one.words);
}

function startKept(one: SetInline): SetInline[] {
  if (one.kind === "link") {
    const first = one.content.findIndex(({ kind }) => kind !== "anchor");
    return first === -1
      ? [one]
      : [{ ...one, content: one.content.flatMap((inner, i) => (i === first ? startKept(inner) : [inner])) }];
  }
  const letters = one.kind === "text" ? partedLetters.exec(one.words)?.[0] : undefined;
  if (one.kind !== "text" || letters === undefined) return [one];
  const rest = one.words.slice(letters.length);
  const whole: SetInline = { ...one, words: letters, whole: true };
  return rest === "" ? [whole] : [whole, { ...one, words: rest }];
}

function withoutSoftEnd(link: SetInline & { kind: "link" }): SetInline {
  const last = link.content.at(-1);
  if (last?.kind !== "text") return link;
  return {
    ...link,
    content: [...link.content.slice(0, -1), { ...last, words: last.words.replace(/\u00ad+$/, "") }],
  };
}
