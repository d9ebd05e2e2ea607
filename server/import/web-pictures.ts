import { Injectable } from "@nestjs/common";
import type { WebPicture } from "@vennet/core/import/web-pictures";
import { fileNameOf } from "@vennet/core/import/file-name";
import { pictureKind } from "@vennet/core/import/pictures";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { judgeMediaType, sampleSize } from "../files/media-type.ts";
import type { Report } from "../jobs/jobs.service.ts";
import { behindRedirects } from "../reach/behind-redirects.ts";
import { PageFetcher } from "../reach/page-fetcher.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import type { WebPicturesAnswer } from "./import.dto.ts";
import type { WebPictureHere } from "./read-manuscript.ts";
import { UploadsService } from "./uploads.service.ts";

/** So many are fetched for a manuscript, each of so many bytes, and all together of so many. */
const mostWebPictures = 300;
const largest = 10 * 1024 * 1024;
const largestTogether = 100 * 1024 * 1024;

/** Fetches the pictures that a manuscript has on the web, once, on its author's word: by the same guarded asking as all else. */
@Injectable()
export class WebPictures {
  constructor(
    private readonly fetcher: PageFetcher,
    private readonly workers: WorkerPools,
    private readonly uploads: UploadsService,
    @InjectDataSource() private readonly database: DataSource,
  ) {}

  /** Fetches pictures and keeps them among what was sent. @returns what became of each, by how the manuscript names it */
  async fetch(
    pictures: readonly WebPicture[],
    report: Report,
    signal: AbortSignal,
  ): Promise<Record<string, WebPictureHere>> {
    const total = Math.min(pictures.length, mostWebPictures);
    const fetched: Record<string, WebPictureHere> = {};
    let room = largestTogether;
    let done = 0;
    // One after the other: a manuscript has many pictures of one host.
    for (const { source, address } of pictures.slice(0, total)) {
      report({ done: done++, total, message: "Fetching pictures from the web" });
      const picture = await this.one(address, Math.min(largest, room), signal);
      signal.throwIfAborted();
      if ("problem" in picture) fetched[source] = picture;
      else {
        room -= picture.bytes.length;
        fetched[source] = { file: await this.kept(picture) };
      }
    }
    return fetched;
  }

  private async kept({ name, bytes }: { name: string; bytes: Uint8Array }): Promise<string> {
    const { mediaType } = await judgeMediaType(Buffer.from(bytes.subarray(0, sampleSize)), name);
    return this.uploads.keep({ name, mediaType, file: bytes }, this.database.manager);
  }

  private async one(
    address: string,
    limit: number,
    signal: AbortSignal,
  ): Promise<{ name: string; bytes: Uint8Array } | { problem: string }> {
    const fetched = await behindRedirects(address, (at, cookies) =>
      this.fetcher.bytes(at, signal, limit, cookies),
    );
    if ("problem" in fetched)
      return {
        problem: fetched.problem === "no-address" ? "It leads on to no address." : "It leads on and on.",
      };
    const { hop, bytes, at } = fetched;
    if (hop.failure) return { problem: "Its host could not be reached, or may not be asked." };
    if (hop.status !== 200) return { problem: `Its host answered ${hop.status}.` };
    if (bytes === null) return { problem: `It is larger than ${Math.floor(limit / 1024 / 1024)} MB.` };
    return this.shown(at, bytes);
  }

  /** The picture as every reader shows it. */
  private async shown(
    address: string,
    bytes: Uint8Array,
  ): Promise<{ name: string; bytes: Uint8Array } | { problem: string }> {
    const kind = pictureKind(bytes);
    if (kind === null) return { problem: "What is there is no picture." };
    const last = fileNameOf(new URL(address).pathname).slice(0, 200);
    if (kind === "shown") return { name: last || "picture", bytes };
    const drawn = await this.workers.run("drawPicture", { bytes });
    return drawn
      ? { name: `${last.replace(/\.\w+$/, "") || "picture"}.png`, bytes: drawn }
      : { problem: "It is damaged, or of a kind that cannot be drawn." };
  }
}

/** What an author is told before any is fetched: how many, and who would be asked. */
export function webPicturesAnswer(pictures: readonly WebPicture[]): WebPicturesAnswer {
  return {
    count: Math.min(pictures.length, mostWebPictures),
    hosts: [...new Set(pictures.map(({ address }) => new URL(address).host))].sort(),
  };
}
