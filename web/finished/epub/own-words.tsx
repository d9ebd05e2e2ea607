import type { EpubLink } from "@vennet/core/finished/epub/epub-page";
import { useState } from "react";
import { Field } from "../../parts/field";

/** What a link says, where that can be changed. */
export function OwnWords({ link, onSay }: { link: EpubLink; onSay: (words: string) => void }) {
  const [text, setText] = useState(link.words);
  if (!link.hasOwnWords) return null;
  const keep = (): void => {
    const next = text.trim();
    if (next === "") setText(link.words);
    else if (next !== link.words) onSay(next);
  };
  return (
    <Field
      label={link.on.kind === "words" ? "Words" : "Text alternative"}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === "Enter") keep();
        if (event.key === "Escape") setText(link.words);
      }}
    />
  );
}
