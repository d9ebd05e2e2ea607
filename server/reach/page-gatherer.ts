import { PageReader, type PageFacts, type WantedOfPage } from "@vennet/core/reach/page-reader";
import { WorkerLimitError } from "../workers/process-limits.ts";
import { WorkerEndedError } from "../workers/lane.ts";
import type { WorkerPools } from "../workers/worker-pools.ts";

/** So many letters of a page are read in the server itself; a longer one goes to a process, which nobody waits for. */
const readHere = 64 * 1024;
/** How much longer a page has grown each time it is read again. */
const growth = 8;

/** Gathers a page as it comes, and reads it no further than needed. */
export class PageGatherer {
  private text = "";
  private readonly start: PageReader;
  private readTo = 0;
  private lookAt = readHere * growth;
  private inProcess: { facts: PageFacts; hasEnough: boolean } | null = null;
  /** Whether the process gave the page up: what its start told is all that is known of it. */
  private isGivenUp = false;

  constructor(
    private readonly workers: WorkerPools,
    private readonly wanted: WantedOfPage,
    private readonly signal: AbortSignal,
  ) {
    this.start = new PageReader(wanted);
  }

  /** Takes the next piece; true where more of the page would tell nothing that is asked for. */
  async push(piece: string): Promise<boolean> {
    this.text += piece;
    if (this.readTo < readHere) {
      const until = Math.min(this.text.length, readHere);
      this.start.push(this.text.slice(this.readTo, until));
      this.readTo = until;
      if (this.start.hasEnough) return true;
    }
    if (this.text.length >= this.lookAt) {
      this.lookAt = this.text.length * growth;
      await this.readAll(false);
    }
    return this.isGivenUp || this.inProcess?.hasEnough === true;
  }

  /** What was read of the page. @param isWhole whether all of it has come */
  async facts(isWhole: boolean): Promise<PageFacts> {
    if (this.text.length > this.readTo && !this.start.hasEnough) {
      if (!this.isGivenUp && !this.inProcess?.hasEnough) await this.readAll(isWhole);
      return this.inProcess?.facts ?? this.start.facts();
    }
    if (isWhole) this.start.end();
    return this.start.facts();
  }

  private async readAll(isWhole: boolean): Promise<void> {
    const { text, wanted } = this;
    try {
      this.inProcess = await this.workers.run("readPage", { text, wanted, isWhole }, this.signal);
    } catch (error) {
      if (!(error instanceof WorkerLimitError || error instanceof WorkerEndedError)) throw error;
      this.isGivenUp = true;
    }
  }
}
