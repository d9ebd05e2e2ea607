import { addressInWord, recognise } from "@vennet/core/destination/recognise";
import { areasOf, lettersOf, type Letter } from "@vennet/core/finished/pdf/letters";
import type { Area, PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { newId } from "@vennet/core/manuscript/ids";
import { noFrame } from "@vennet/core/manuscript/hotspot";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { plural } from "../parts/wording";
import type { KeptPage } from "./use-pages";

interface Bare {
  number: number;
  label: string;
  words: string;
  address: string;
  areas: Area[];
}

/** Addresses that stand in the text of a file and are no links: offered together, each with a tick. */
export function BareAddresses({
  file,
  pages,
  onChange,
  onClose,
}: {
  file: PDFDocumentProxy;
  pages: readonly KeptPage[];
  onChange: (to: readonly PdfPage[], message: string) => void;
  onClose: () => void;
}) {
  const [found, setFound] = useState<readonly Bare[]>([]);
  const [done, setDone] = useState(0);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    const look = async (): Promise<void> => {
      for (const { document } of pages) {
        const page = await file.getPage(document.number);
        const content = await page.getTextContent({ includeMarkedContent: true });
        if (isLeft) return;
        const bare = bareOn(document, lettersOf(content));
        if (bare.length > 0) setFound((all) => [...all, ...bare]);
        setDone(document.number);
      }
    };
    look().catch((error: unknown) => !isLeft && setProblem((error as Error).message));
    return () => {
      isLeft = true;
    };
    // It looks once; what is linked from here is taken off the list by closing it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [file]);
  const chosen = found.filter((_, i) => !left.has(i));
  const link = (): void => {
    const numbers = [...new Set(chosen.map(({ number }) => number))];
    const to = numbers.map((number): PdfPage => {
      const page = pages[number - 1]!.document;
      const fresh = chosen
        .filter((one) => one.number === number)
        .map(({ words, areas, address }) => ({
          id: newId(),
          from: null,
          words,
          areas,
          destination: recognise(address).destination,
          description: null,
          frame: noFrame,
        }));
      return { ...page, links: [...page.links, ...fresh] };
    });
    onChange(to, `Linked ${plural(chosen.length, "address", "addresses")}.`);
    onClose();
  };
  const isDone = done === pages.length;
  return (
    <section
      aria-labelledby="bare-addresses"
      className="mx-auto mb-4 max-w-3xl border border-hairline bg-paper p-4"
    >
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 id="bare-addresses" className="mr-auto font-serif text-xl font-semibold">
          Addresses without a link
        </h2>
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      {!isDone && !problem && <Progress label="Looking through the pages" done={done} total={pages.length} />}
      {problem && <Problem>{problem}</Problem>}
      {isDone && found.length === 0 && (
        <p role="status" className="mt-2">
          Every address that stands in the text is a link already.
        </p>
      )}
      {found.length > 0 && (
        <ul className="mt-2 max-h-72 overflow-y-auto">
          {found.map(({ label, words, address }, i) => (
            <li key={i}>
              <label className="flex min-h-7 items-baseline gap-2">
                <input
                  type="checkbox"
                  className="size-4 self-center accent-blue"
                  checked={!left.has(i)}
                  onChange={() => {
                    const next = new Set(left);
                    if (!next.delete(i)) next.add(i);
                    setLeft(next);
                  }}
                />
                <span className="min-w-0 grow font-mono text-[0.85rem] [overflow-wrap:anywhere]">
                  {words}
                  {words !== address && <span className="text-faint"> → {address}</span>}
                </span>
                <span className="shrink-0 text-sm text-faint">page {label}</span>
              </label>
            </li>
          ))}
        </ul>
      )}
      {found.length > 0 && (
        <Button kind="main" className="mt-3" disabled={chosen.length === 0} onClick={link}>
          Link {plural(chosen.length, "address", "addresses")}
        </Button>
      )}
    </section>
  );
}

/** The addresses of a page that no link covers. */
function bareOn(page: PdfPage, letters: readonly Letter[]): Bare[] {
  const covered = [...page.links, ...page.untouched].flatMap(({ areas }) => areas ?? []);
  const found: Bare[] = [];
  for (const word of wordsIn(letters)) {
    const text = word.map((letter) => letter.text).join("");
    const address = addressInWord(text);
    if (address === null) continue;
    const at = text.indexOf(address);
    const areas = areasOf(word.slice(at, at + address.length));
    if (areas.length === 0 || areas.some((area) => covered.some((one) => overlap(one, area)))) continue;
    const { number, label } = page;
    found.push({ number, label, words: address, address, areas });
  }
  return found;
}

function wordsIn(letters: readonly Letter[]): Letter[][] {
  const words: Letter[][] = [[]];
  for (const letter of letters) {
    if (letter.text.trim() === "") words.push([]);
    else words.at(-1)!.push(letter);
    // An address may go on behind the end of a line, but nobody can tell: it is taken to end with it.
    if (letter.endsLine) words.push([]);
  }
  return words.filter((word) => word.length > 0);
}

function overlap(a: Area, b: Area): boolean {
  return a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
}
