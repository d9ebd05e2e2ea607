import { Injectable } from "@nestjs/common";
import { Settings } from "../settings.ts";
import { PageFetcher } from "./page-fetcher.ts";
import { HostGates } from "./host-gates.ts";
import { HostVisits } from "./host-visits.ts";

/** An author waits for the answer. */
const longestMs = 10_000;

/** Asks pages what they are called. */
@Injectable()
export class PageTitles {
  constructor(
    private readonly fetcher: PageFetcher,
    private readonly gates: HostGates,
    private readonly settings: Settings,
  ) {}

  /** The title of the page at an address, or null where it cannot be had in the time that an author waits. */
  async titleOf(bookId: string, address: string): Promise<string | null> {
    const waits = Math.min(longestMs, this.settings.reachTotalMs);
    const signal = AbortSignal.timeout(waits);
    try {
      const visits = new HostVisits(this.fetcher, this.gates, bookId, () => 1, waits);
      const { state, title } = (await visits.visit(address, [address], signal)).get(address)!;
      return state === "sound" || state === "moved" ? title : null;
    } catch (error) {
      if (signal.aborted) return null;
      throw error;
    }
  }
}
