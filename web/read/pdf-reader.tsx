import { useMemo, useRef, useState } from "react";
import type { ExportWithProof } from "../api/client";
import { AskedLink } from "./asked-link";
import type { OutwardLink } from "./outward-link";
import { landingOf, type Landing, type OpenPdf } from "./open-pdf";
import { Choice, ReaderFrame, settingBox, Tick } from "./reader-frame";
import { PageThumbnails } from "./page-thumbnails";
import { PdfPage, type PageLink, type ShownPage } from "./pdf-page";
import { PdfWalker, type Followed, type PressedPdfReader } from "./walk/pdf-walker";
import { Shown } from "./walk/shown";
import { WalkPanel } from "./walk/walk-panel";

interface Place {
  page: number;
  mark: number | null;
  scrolled: number;
}

const scales = [0.75, 1, 1.25, 1.5, 2];

/** The pages of an exported PDF, with its outline and links. */
export function PdfReader({ bookId, pdf, proof }: { bookId: string; pdf: OpenPdf; proof: ExportWithProof }) {
  const [page, setPage] = useState(1);
  const [mark, setMark] = useState<number | null>(null);
  const [scale, setScale] = useState(1.25);
  const [outlined, setOutlined] = useState(true);
  const [asked, setAsked] = useState<(OutwardLink & { byRobot: boolean }) | null>(null);
  const [told, setTold] = useState("");
  /** Where the reader came from, the last jump at the end. */
  const [trail, setTrail] = useState<Place[]>([]);
  const desk = useRef<HTMLDivElement>(null);
  const shown = useRef(new Shown<ShownPage>());
  const { numPages } = pdf.document;

  const turnTo = (to: number): void => {
    setAsked(null);
    setMark(null);
    setPage(Math.min(Math.max(1, to), numPages));
    if (desk.current) desk.current.scrollTop = 0;
  };
  const jump = async (dest: unknown): Promise<Landing | null> => {
    const landing = await landingOf(pdf.document, dest);
    if (!landing) {
      setTold("This link leads nowhere in the file.");
      return null;
    }
    setTrail([...trail, { page, mark, scrolled: desk.current?.scrollTop ?? 0 }]);
    turnTo(landing.page);
    setMark(landing.y);
    setTold(`Page ${landing.page}.`);
    return landing;
  };
  const back = (): void => {
    const place = trail.at(-1);
    if (!place) return;
    setTrail(trail.slice(0, -1));
    turnTo(place.page);
    setMark(place.mark);
    setTold(`Back on page ${place.page}.`);
    requestAnimationFrame(() => {
      if (desk.current) desk.current.scrollTop = place.scrolled;
    });
  };
  const follow = async ({ name, address, dest }: PageLink, byRobot = false): Promise<Followed> => {
    if (address === null) return { goesTo: await jump(dest) };
    setAsked({ name, address, byRobot });
    return { asks: address };
  };
  const stay = (): void => setAsked(null);
  const pressed = useRef<PressedPdfReader>(null!);
  pressed.current = { turnTo, follow: (link) => follow(link, true), back, stay };
  const walker = useMemo(() => new PdfWalker(pdf, pressed, shown.current), [pdf]);

  return (
    <ReaderFrame
      unit="page"
      position={
        <>
          <input
            aria-label="Page"
            type="number"
            min={1}
            max={numPages}
            value={page}
            onChange={(event) =>
              !Number.isNaN(event.target.valueAsNumber) && turnTo(event.target.valueAsNumber)
            }
            className={`${settingBox} w-16 text-right tabular-nums`}
          />
          <span className="tabular-nums">of {numPages}</span>
        </>
      }
      onTurn={(by) => turnTo(page + by)}
      settings={
        <>
          <Choice label="Zoom">
            <select
              value={scale}
              onChange={(event) => setScale(Number(event.target.value))}
              className={settingBox}
            >
              {scales.map((one) => (
                <option key={one} value={one}>
                  {one * 100} %
                </option>
              ))}
            </select>
          </Choice>
          <Tick label="Outline the links" isOn={outlined} onChange={setOutlined} />
        </>
      }
      canGoBack={trail.length > 0}
      onBack={back}
      told={told}
      contentsName="Outline of the file"
      contents={pdf.outline}
      onGoTo={({ dest }) => void jump(dest)}
      thumbnails={<PageThumbnails document={pdf.document} current={page} onGoTo={turnTo} />}
      deskName={`Page ${page} of the file`}
      desk={desk}
      walk={<WalkPanel walker={walker} proof={proof} />}
      asked={
        asked && (
          <AskedLink
            key={asked.address}
            bookId={bookId}
            link={asked}
            beside={pdf.beside}
            takesFocus={!asked.byRobot}
            onDone={stay}
          />
        )
      }
      invitation="Press a link on the page. A jump goes there at once and marks the line; an address is shown here before anything is opened."
    >
      <PdfPage
        document={pdf.document}
        number={page}
        scale={scale}
        outlined={outlined}
        mark={mark}
        onFollow={(link) => void follow(link)}
        onShown={(number, view) => shown.current.tell(String(number), view)}
        onGone={() => shown.current.forget()}
      />
    </ReaderFrame>
  );
}
