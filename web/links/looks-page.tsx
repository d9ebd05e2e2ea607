import { useMutation } from "@tanstack/react-query";
import { kindNames } from "@vennet/core/destination/kinds/kinds";
import {
  defaultLooks,
  underlineCss,
  type HoverStyle,
  type LinkLook,
  type LinkLooks,
} from "@vennet/core/manuscript/looks";
import { Fragment, useState } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { KindMark } from "../destinations/kind-mark";
import { kinds } from "../destinations/kinds";
import { JudgedLook, LookFields } from "../destinations/look-fields";
import { LinksFrame } from "./links-frame";

const hovers: [HoverStyle, string][] = [
  ["same", "the same"],
  ["underlined", "underlined"],
  ["shaded", "shaded"],
];

/** How the links of each kind look in the book, on paper as it is chosen, with what WCAG says of it. */
export function LooksPage() {
  const book = useBook();
  const stale = useStale();
  const [looks, setLooks] = useState<LinkLooks>(book.looks);
  const save = useMutation({
    mutationFn: () =>
      answerOf(api.PATCH("/api/books/{bookId}", { params: { path: { bookId: book.id } }, body: { looks } })),
    onSuccess: () => stale("settings"),
  });
  const isChanged = JSON.stringify(looks) !== JSON.stringify(book.looks);
  const set = (kind: keyof LinkLooks, to: Partial<LinkLook>): void =>
    setLooks({ ...looks, [kind]: { ...looks[kind], ...to } });
  return (
    <LinksFrame>
      <div className="h-full overflow-y-auto p-5">
        <div className="mx-auto max-w-5xl">
          <h1 className="font-serif text-2xl">Link looks</h1>
          <p className="text-faint">
            For the whole book, in every export. Whatever they look like, they stay links.
          </p>
          <p
            aria-label="How it looks on the page"
            className="mt-4 border border-hairline bg-white p-6 font-serif text-[1.1rem] leading-relaxed text-[#1c1a17]"
          >
            Before a crossing, look at{" "}
            {kindNames.map((kind, i) => (
              <Fragment key={kind}>
                {i > 0 && (i === kindNames.length - 1 ? " and " : ", ")}
                <Sample look={looks[kind]} words={kinds[kind].sample} />
              </Fragment>
            ))}
            .
          </p>
          <div className="mt-4 border-t border-hairline bg-paper">
            {kindNames.map((kind) => (
              <fieldset
                key={kind}
                className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-hairline px-4 py-2"
              >
                <legend className="sr-only">Look of {kind} links</legend>
                <span className="w-28">
                  <KindMark kind={kind} />
                </span>
                <LookFields look={looks[kind]} onChange={(to) => set(kind, to)} />
                <label className="flex items-center gap-2">
                  On hover (web pages)
                  <select
                    value={looks[kind].hover}
                    onChange={(event) => set(kind, { hover: event.target.value as HoverStyle })}
                    className="min-h-8 border border-hairline bg-paper px-1"
                  >
                    {hovers.map(([one, words]) => (
                      <option key={one} value={one}>
                        {words}
                      </option>
                    ))}
                  </select>
                </label>
                <JudgedLook look={looks[kind]} />
              </fieldset>
            ))}
          </div>
          {save.error && <Problem>{save.error.message}</Problem>}
          <div className="mt-4 flex flex-wrap items-center gap-4">
            <Button kind="main" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
              {save.isPending ? "Saving …" : "Save"}
            </Button>
            <Button kind="quiet" disabled={!isChanged} onClick={() => setLooks(book.looks)}>
              Cancel
            </Button>
            <Button kind="quiet" onClick={() => setLooks(defaultLooks)}>
              Default
            </Button>
            {save.isSuccess && !isChanged && <span role="status">Saved: the book’s links look so now.</span>}
          </div>
        </div>
      </div>
    </LinksFrame>
  );
}

function Sample({ look, words }: { look: LinkLook; words: string }) {
  return (
    <span
      style={{
        color: look.colour,
        textDecoration: underlineCss(look.underline),
        textUnderlineOffset: "0.18em",
        fontWeight: look.bold ? 700 : undefined,
      }}
    >
      {words}
    </span>
  );
}
