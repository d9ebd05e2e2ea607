import { partsOfPath } from "@vennet/core/proof/companion-path";
import { hasScheme } from "@vennet/core/proof/exported-folder";
import { Landings } from "@vennet/core/publish/formats/pdf/landings";
import { whereOf } from "@vennet/core/proof/where-in-pdf";
import type { Landing, OpenPdf } from "../open-pdf";
import { linksOf, type PageLink, type ShownPage } from "../pdf-page";
import type { Shown } from "./shown";
import type { FileLink, Landed, Walker } from "./walker";

/** What following a link does: the reader goes to a place, if the file has it, or asks about an address or a file. */
export type Followed = { goesTo: Landing | null } | { asks: string };

/** What a robot presses on the page reader. */
export interface PressedPdfReader {
  turnTo: (page: number) => void;
  follow: (link: PageLink) => Promise<Followed>;
  back: () => void;
  stay: () => void;
}

interface PdfLink extends FileLink {
  page: number;
  link: PageLink;
}

const thumbnail = { width: 300, height: 120 };

/** Drives the page reader. */
export class PdfWalker implements Walker {
  private readonly landings: Landings;
  private hasJumped = false;

  constructor(
    private readonly pdf: OpenPdf,
    private readonly reader: { current: PressedPdfReader },
    private readonly shown: Shown<ShownPage>,
  ) {
    this.landings = new Landings(pdf.document);
  }

  async links(): Promise<PdfLink[]> {
    const all: PdfLink[] = [];
    for (let page = 1; page <= this.pdf.document.numPages; page++) {
      const sheet = await this.pdf.document.getPage(page);
      for (const link of await linksOf(sheet, 1))
        all.push({ where: whereOf(page, link.rect), on: `Page ${page}`, words: link.name, page, link });
    }
    return all;
  }

  async show(link: FileLink): Promise<string | null> {
    const { page, link: pressed } = link as PdfLink;
    this.reader.current.turnTo(page);
    const view = await this.shown.of(String(page));
    return crop(view, (pressed.rect[1]! + pressed.rect[3]!) / 2);
  }

  async follow(link: FileLink): Promise<Landed> {
    const { page, link: pressed } = link as PdfLink;
    this.hasJumped = false;
    const missed = await this.whatTakesPress(page, pressed);
    if (missed !== null) return { at: "missed", what: missed };
    const followed = await this.reader.current.follow(pressed);
    this.hasJumped = "goesTo" in followed && followed.goesTo !== null;
    if ("asks" in followed) {
      const { asks } = followed;
      if (hasScheme(asks)) return { at: "address", address: asks };
      const path = decodeURIComponent(asks);
      return { at: "file", path, isThere: this.pdf.beside.has(partsOfPath(path).file) };
    }
    const landing = followed.goesTo;
    if (!landing) return { at: "nowhere" };
    const view = await this.shown.of(String(landing.page));
    const { landing: words, inColumns = [] } = await this.landings.at(pressed.dest);
    // The line begins below the landing.
    const picture = crop(view, (landing.y ?? view.height) - 10);
    return { at: "place", on: `Page ${landing.page}`, words: words ?? "", inColumns, picture };
  }

  /** What a press on the middle of a link's first line meets in its place: readers give it to the last that lies there. */
  private async whatTakesPress(page: number, { id, boxes }: PageLink): Promise<string | null> {
    const first = boxes.find(({ width, height }) => width > 0.5 && height > 0.5);
    if (!first) return "Its area has no size.";
    const [x, y] = [first.left + first.width / 2, first.top + first.height / 2];
    const links = await linksOf(await this.pdf.document.getPage(page), 1);
    const met = links.findLast((one) =>
      one.boxes.some(
        ({ left, top, width, height }) => x >= left && x <= left + width && y >= top && y <= top + height,
      ),
    );
    return met && met.id !== id ? `Another link lies where it is pressed: “${met.name}”.` : null;
  }

  async back(): Promise<void> {
    if (this.hasJumped) this.reader.current.back();
    else this.reader.current.stay();
    await new Promise((resolve) => setTimeout(resolve));
  }
}

/** A strip of a page around a height, in points from the page's foot. */
function crop({ canvas, height }: ShownPage, at: number): string {
  const perPoint = canvas.height / height;
  const width = canvas.width;
  const high = (width * thumbnail.height) / thumbnail.width;
  const middle = (height - at) * perPoint;
  const top = Math.min(Math.max(0, middle - high / 3), canvas.height - high);
  const small = document.createElement("canvas");
  small.width = thumbnail.width * 2;
  small.height = thumbnail.height * 2;
  small.getContext("2d")!.drawImage(canvas, 0, top, width, high, 0, 0, small.width, small.height);
  return small.toDataURL("image/jpeg", 0.7);
}
