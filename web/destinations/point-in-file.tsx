import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { Dialog } from "radix-ui";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { TurnPages } from "../finished/tool-parts";
import { useShownPage } from "../finished/pdf/shown-page";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { usePdfDocument } from "../parts/use-pdf-document";
import { NotRead } from "../parts/not-read";

/** How far one press of an arrow key moves the line, in points; with Shift further. */
const step = 10;
const farStep = 100;

/**
 * Shows a companion PDF, of which a page, or a spot of it, is pressed to lead there; or one of its places is chosen by name.
 * By keys a line is moved down the page.
 */
export function PointInFile({
  address,
  name,
  places,
  onPoint,
  onClose,
}: {
  address: string;
  name: string;
  places: FilePlaces["places"];
  /** Told what an address has behind its `#` (RFC 8118). */
  onPoint: (at: string) => void;
  onClose: () => void;
}) {
  const { file, asked } = usePdfDocument(address);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-3 top-[4vh] z-50 mx-auto flex h-[92vh] max-w-[64rem] flex-col border border-ink bg-paper"
        >
          <div className="flex items-baseline gap-x-4 border-b border-hairline px-5 py-2">
            <Dialog.Title className="min-w-0 grow font-serif text-lg [overflow-wrap:anywhere]">
              Where in {name} does the link lead?
            </Dialog.Title>
            <Dialog.Close asChild>
              <Button kind="quiet">Cancel</Button>
            </Dialog.Close>
          </div>
          <NotRead of={asked} says={({ message }) => `This file cannot be shown: ${message}`} />
          {!file && !asked.error && <Waiting what="Opening the file" />}
          {file && <Pages file={file} places={places} onPoint={onPoint} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Pages({
  file,
  places,
  onPoint,
}: {
  file: PDFDocumentProxy;
  places: FilePlaces["places"];
  onPoint: (at: string) => void;
}) {
  const [number, setNumber] = useState(1);
  /** How far below the top of the page the line is, in points; null while there is none. */
  const [line, setLine] = useState<number | null>(null);
  const { canvas, shown, problem } = useShownPage(file, number, 1);
  const sheet = useRef<HTMLDivElement>(null);
  const turn = (to: number): void => {
    setNumber(Math.min(Math.max(1, to), file.numPages));
    setLine(null);
  };
  const height = shown?.number === number ? shown.viewport.height : null;
  const at = (top: number): number => Math.round(Math.min(Math.max(0, top), height ?? Infinity));
  const heightOf = (event: PointerEvent): number =>
    at(event.clientY - sheet.current!.getBoundingClientRect().top);
  const point = (top: number | null): void =>
    // Left and top from the upper left corner of the page, however it is turned (RFC 8118, `zoom`).
    onPoint(top === null ? `page=${number}` : `page=${number}&zoom=100,0,${top}`);
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = event.shiftKey ? farStep : step;
    if (event.key === "ArrowDown") setLine(at((line ?? -by) + by));
    else if (event.key === "ArrowUp") setLine(at((line ?? height ?? 0) - by));
    else if (event.key === "PageDown") turn(number + 1);
    else if (event.key === "PageUp") turn(number - 1);
    else if (event.key === "Enter") point(line);
    else return;
    event.preventDefault();
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline px-5 py-1 text-[0.93rem]">
        <TurnPages number={number} count={file.numPages} onTurn={turn}>
          <span className="tabular-nums">
            Page {number} of {file.numPages}
          </span>
        </TurnPages>
        <Button kind="main" className="!text-sm" onClick={() => point(null)}>
          Lead to this page
        </Button>
        <span className="text-sm text-faint">or press the spot on it</span>
      </div>
      <div className="grid min-h-0 grow md:grid-cols-[minmax(0,14rem)_minmax(0,1fr)]">
        <nav
          aria-label="Places in the file"
          className="min-h-0 overflow-y-auto border-r border-hairline p-3 text-sm max-md:hidden"
        >
          {places.length === 0 && <p className="text-faint">The file names no places. Every page is one.</p>}
          <ul className="grid gap-0.5">
            {places.map((place) => (
              <li key={place.at}>
                <button
                  type="button"
                  onClick={() => onPoint(place.at)}
                  className="min-h-6 text-left [overflow-wrap:anywhere] hover:text-blue hover:underline"
                >
                  {place.name}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <div className="min-h-0 overflow-auto bg-desk p-4">
          {problem && <Problem>{problem}</Problem>}
          <div
            ref={sheet}
            role="slider"
            tabIndex={0}
            aria-label={`Spot on page ${number}`}
            aria-orientation="vertical"
            aria-valuemin={0}
            aria-valuemax={Math.round(height ?? 0)}
            aria-valuenow={line ?? 0}
            aria-valuetext={
              line === null ? "The whole page" : `${line} points below the top. Enter leads there.`
            }
            onKeyDown={onKeyDown}
            onPointerMove={(event) => setLine(heightOf(event))}
            onPointerLeave={() => setLine(null)}
            onClick={(event) => point(heightOf(event as unknown as PointerEvent))}
            className="relative mx-auto w-fit cursor-crosshair border border-hairline bg-white shadow-sm"
            style={
              shown
                ? { width: shown.viewport.width, height: shown.viewport.height }
                : { width: 420, height: 595 }
            }
          >
            <canvas ref={canvas} aria-hidden className="absolute inset-0 size-full" />
            {shown && line !== null && (
              <div
                aria-hidden
                className="pointer-events-none absolute inset-x-0 border-t-2 border-[#1d4f8f]"
                style={{ top: line }}
              />
            )}
          </div>
        </div>
      </div>
    </>
  );
}
