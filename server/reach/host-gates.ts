import { setImmediate as nextTurn, setTimeout as sleep } from "node:timers/promises";
import { Injectable, Optional } from "@nestjs/common";
import { HostPace } from "@vennet/core/reach/politeness";
import { Settings } from "../settings.ts";
import { SharedPace } from "./shared-pace.ts";
import { FairPlaces } from "./fair-places.ts";

const gatesKept = 5_000;
/** So many questions of a book are under way at once, whatever other books ask. */
const bookShare = 8;

/** By what gaps and rests are told: milliseconds of one clock, and waiting for so many of them. */
export interface Clock {
  now: () => number;
  sleep: (ms: number, signal: AbortSignal) => Promise<void>;
}

const clockOfMachine: Clock = {
  now: () => performance.now(),
  sleep: (ms, signal) => sleep(ms, undefined, { signal }),
};

interface Gate {
  pace: HostPace;
  lanes: FairPlaces;
}

/**
 * Lets questions out at the pace that each host can bear, and no more at once than this server is set to; but each
 * book has its share of them at once.
 * Two runs that ask the same host here share its gate, and servers with one Redis its pace.
 */
@Injectable()
export class HostGates {
  private readonly gates = new Map<string, Gate>();
  private readonly all: FairPlaces;
  private last: Promise<void> = Promise.resolve();

  constructor(
    private readonly settings: Settings,
    @Optional() private readonly clock: Clock = clockOfMachine,
    @Optional() private readonly shared: SharedPace | null = null,
  ) {
    this.all = new FairPlaces(settings.reachConcurrency, bookShare);
  }

  /**
   * Waits for a book's turn to ask a host, and gives the function that ends it.
   * @param left how many pages of the host are yet to be asked for the book
   */
  async enter(host: string, bookId: string, signal: AbortSignal, left = 0): Promise<() => void> {
    const { pace, lanes } = this.gate(host);
    const leaveLane = await lanes.enter(bookId, signal);
    try {
      for (;;) {
        await this.untilTurn(host, pace, signal);
        const leaveAll = await this.all.enter(bookId, signal, left);
        try {
          if (await this.begin(host, pace))
            return () => {
              leaveAll();
              leaveLane();
            };
        } catch (error) {
          leaveAll();
          throw error;
        }
        leaveAll();
      }
    } catch (error) {
      leaveLane();
      throw error;
    }
  }

  /**
   * Begins a question for which there is a place, however late; the next one waits for the gap from now on.
   * @returns whether it was its turn still: another may have begun meanwhile, here or on another server, or the host have asked for a rest
   */
  private async begin(host: string, pace: HostPace): Promise<boolean> {
    await this.nextTurnOfServer();
    if (pace.waitMs(this.clock.now()) > 0) return false;
    const ofAll = (await this.shared?.begin(host, pace.gapMs)) ?? 0;
    const now = this.clock.now();
    if (ofAll > 0) pace.pauseUntil(now + ofAll);
    if (pace.waitMs(now) > 0) return false;
    pace.begin(now);
    return true;
  }

  /** Waits until a host may be asked, and any rest of it is over. */
  private async untilTurn(host: string, pace: HostPace, signal: AbortSignal): Promise<void> {
    for (;;) {
      const rest = (await this.shared?.restOf(host)) ?? 0;
      if (rest > 0) pace.pauseUntil(this.clock.now() + rest);
      const wait = pace.waitMs(this.clock.now());
      if (wait === 0) return;
      await this.clock.sleep(wait, signal);
    }
  }

  /** Questions begin one a turn of the server's, so that what others ask of it comes in between. */
  private nextTurnOfServer(): Promise<void> {
    return (this.last = this.last.then(() => nextTurn()));
  }

  /** A host asks for so much time between questions. */
  widen(host: string, gapMs: number): void {
    this.gate(host).pace.widen(gapMs);
  }

  /** A host asks for a rest of so many milliseconds from now. */
  rest(host: string, ms: number): void {
    this.gate(host).pace.pauseUntil(this.clock.now() + ms);
    void this.shared?.rest(host, ms);
  }

  private gate(host: string): Gate {
    const known = this.gates.get(host);
    if (known) return known;
    if (this.gates.size >= gatesKept) this.forgetIdle();
    const gate = {
      pace: new HostPace(this.settings.reachGapMs),
      lanes: new FairPlaces(this.settings.reachLanes),
    };
    this.gates.set(host, gate);
    return gate;
  }

  private forgetIdle(): void {
    const now = this.clock.now();
    for (const [host, { pace, lanes }] of this.gates)
      if (lanes.isEmpty && pace.isIdle(now)) this.gates.delete(host);
  }
}
