import { useMutation } from "@tanstack/react-query";
import { kindNames } from "@vennet/core/destination/kinds/kinds";
import { judgeLook } from "@vennet/core/checks/contrast";
import {
  defaultLooks,
  type HoverStyle,
  type LinkLook,
  type LinkLooks,
  type UnderlineStyle,
} from "@vennet/core/manuscript/looks";
import { CircleAlert, CircleCheck } from "lucide-react";
import { Fragment, useState } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { KindMark } from "../destinations/kind-mark";
import { kinds } from "../destinations/kinds";
import { LinksFrame } from "./links-frame";

const hovers: [HoverStyle, string][] = [
  ["same", "stays the same"],
  ["underlined", "is underlined"],
  ["shaded", "is shaded"],
];
const underlines: UnderlineStyle[] = ["none", "solid", "dotted", "dashed"];

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
                <label className="flex items-center gap-2">
                  Colour
                  <input
                    type="color"
                    value={looks[kind].colour}
                    onChange={(event) => set(kind, { colour: event.target.value })}
                    className="h-8 w-12 border border-hairline bg-paper"
                  />
                </label>
                <label className="flex items-center gap-2">
                  Underline
                  <select
                    value={looks[kind].underline}
                    onChange={(event) => set(kind, { underline: event.target.value as UnderlineStyle })}
                    className="min-h-8 border border-hairline bg-paper px-1"
                  >
                    {underlines.map((one) => (
                      <option key={one} value={one}>
                        {one}
                      </option>
                    ))}
                  </select>
                </label>
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-4 accent-blue"
                    checked={looks[kind].bold}
                    onChange={(event) => set(kind, { bold: event.target.checked })}
                  />
                  Bold
                </label>
                <label className="flex items-center gap-2">
                  On web pages, pointed at, it
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
                <Judgement look={looks[kind]} />
              </fieldset>
            ))}
          </div>
          {save.error && <Problem>{save.error.message}</Problem>}
          <div className="mt-4 flex flex-wrap items-center gap-4">
            <Button kind="main" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
              {save.isPending ? "Saving …" : "Take these looks"}
            </Button>
            <Button kind="quiet" disabled={!isChanged} onClick={() => setLooks(book.looks)}>
              As they were
            </Button>
            <Button kind="quiet" onClick={() => setLooks(defaultLooks)}>
              Blue and underlined
            </Button>
            {save.isSuccess && !isChanged && <span role="status">The book’s links look so now.</span>}
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
        textDecoration: look.underline === "none" ? "none" : `underline ${look.underline}`,
        textUnderlineOffset: "0.18em",
        fontWeight: look.bold ? 700 : undefined,
      }}
    >
      {words}
    </span>
  );
}

/** What WCAG says, with its limits. */
function Judgement({ look }: { look: LinkLook }) {
  const { onPaper, besideText, isReadable, isTold } = judgeLook(look);
  return (
    <div role="status" className="ml-auto grid gap-0.5 text-sm">
      <Verdict isGood={isReadable}>
        {onPaper.toFixed(2)} on paper, {isReadable ? "enough" : "too little"}: 4.5 is asked (SC 1.4.3)
      </Verdict>
      <Verdict isGood={isTold}>
        {look.underline !== "none"
          ? `${besideText.toFixed(2)} beside the text, and underlined`
          : `${besideText.toFixed(2)} beside the text, ${isTold ? "enough" : "too little"} without an underline: 3 is asked (SC 1.4.1)`}
      </Verdict>
    </div>
  );
}

function Verdict({ isGood, children }: { isGood: boolean; children: React.ReactNode }) {
  const Icon = isGood ? CircleCheck : CircleAlert;
  return (
    <span className={`flex items-center gap-1.5 ${isGood ? "" : "text-red"}`}>
      <Icon aria-hidden size={14} />
      <span>{children}</span>
    </span>
  );
}
