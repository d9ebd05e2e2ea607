import { Injectable } from "@nestjs/common";
import { PageFetcher } from "./page-fetcher.ts";
import { HostGates } from "./host-gates.ts";
import { HostVisits } from "./host-visits.ts";

/** Asks pages what they are called. */
@Injectable()
export class PageTitles {
  constructor(
    private readonly fetcher: PageFetcher,
    private readonly gates: HostGates,
  ) {}

  /** The title of the page at an address, or null where it cannot be had. */
  async titleOf(address: string, signal: AbortSignal): Promise<string | null> {
    const outcomes = await new HostVisits(this.fetcher, this.gates).visit(address, [address], signal);
    const { state, title } = outcomes.get(address)!;
    return state === "sound" || state === "moved" ? title : null;
  }
}
