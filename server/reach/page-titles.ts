import { Injectable } from "@nestjs/common";
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
  ) {}

  /** The title of the page at an address, or null where it cannot be had in the time that an author waits. */
  async titleOf(bookId: string, address: string): Promise<string | null> {
    const signal = AbortSignal.timeout(longestMs);
    try {
      const visits = new HostVisits(this.fetcher, this.gates, bookId, longestMs);
      const { state, title } = (await visits.visit(address, [address], signal)).get(address)!;
      return state === "sound" || state === "moved" ? title : null;
    } catch (error) {
      if (signal.aborted) return null;
      throw error;
    }
  }
}
