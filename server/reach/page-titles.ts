import { Injectable } from "@nestjs/common";
import { Parser } from "htmlparser2";
import { Asker } from "./asker.ts";

const titleLength = 300;

/** Asks pages what they are called. */
@Injectable()
export class PageTitles {
  constructor(private readonly asker: Asker) {}

  /** The title of the page at an address, or null where it cannot be had. */
  async titleOf(address: string, signal: AbortSignal): Promise<string | null> {
    const { state, hops } = await this.asker.reach(address, signal);
    const arrived = hops.at(-1);
    if (!arrived || (state !== "sound" && state !== "moved")) return null;
    const page = await this.asker.read(arrived.address, signal);
    if (!page || !/^(text\/html|application\/xhtml\+xml)/i.test(page.contentType)) return null;
    return readTitle(page.bytes, page.contentType);
  }
}

function readTitle(bytes: Buffer, contentType: string): string | null {
  const label =
    /charset=["']?([\w-]+)/i.exec(contentType)?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 1024).toString("latin1"))?.[1] ??
    "utf-8";
  let text: string;
  try {
    text = new TextDecoder(label).decode(bytes);
  } catch {
    // A character set that nobody knows.
    text = bytes.toString("utf8");
  }
  let title = "";
  let isInside = false;
  let isDone = false;
  const parser = new Parser({
    onopentag: (name) => (isInside ||= name === "title" && !isDone),
    ontext: (part) => {
      if (isInside) title += part;
    },
    onclosetag: (name) => {
      if (name !== "title" || !isInside) return;
      isInside = false;
      isDone = true;
    },
  });
  parser.end(text);
  const clean = title.replace(/\s+/g, " ").trim();
  return clean === "" ? null : clean.slice(0, titleLength);
}
