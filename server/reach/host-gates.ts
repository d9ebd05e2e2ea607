import { setImmediate as nextTurn, setTimeout as sleep } from "node:timers/promises";
import { Injectable, Optional } from "@nestjs/common";
import { HostPace } from "@vennet/core/reach/politeness";
import { Settings } from "../settings.ts";
import { SharedPace } from "./shared-pace.ts";
import { FairPlaces } from "./fair-places.ts";

const gatesKept = 5_000;
/** So many questions of a book are under way at once, whatever other books ask. */
const bookShare = 8;

/** A question that begins so much later than its turn, in milliseconds, still keeps the gap for the next. */
const onTime = 5;

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

  /** Questions begin one a turn of the server's, so that what others ask of it comes in between. */
  private begin(): Promise<void> {
    return (this.last = this.last.then(() => nextTurn()));
  }

  /** Waits for a book's turn to ask a host, and gives the function that ends it. */
  async enter(host: string, bookId: string, signal: AbortSignal): Promise<() => void> {
    const { pace, lanes } = this.gate(host);
    const leaveLane = await lanes.enter(bookId, signal);
    try {
      let turn = await this.waitForTurn(host, pace, signal);
      for (;;) {
        const leaveAll = await this.all.enter(bookId, signal);
        try {
          turn = await this.turnInPlace(host, pace, turn, signal);
          if (turn <= this.clock.now()) {
            await this.begin();
            return () => {
              leaveAll();
              leaveLane();
            };
          }
        } catch (error) {
          leaveAll();
          throw error;
        }
        leaveAll();
        await this.clock.sleep(turn - this.clock.now(), signal);
      }
    } catch (error) {
      leaveLane();
      throw error;
    }
  }

  /** Takes a host's next turn and waits until it has come, and any rest of the host is over. */
  private async waitForTurn(host: string, pace: HostPace, signal: AbortSignal): Promise<number> {
    for (;;) {
      const wait = await this.takeTurn(host, pace);
      const turn = this.clock.now() + wait;
      if (wait > 0) await this.clock.sleep(wait, signal);
      const rest = (await this.shared?.restOf(host)) ?? 0;
      if (rest > 0) pace.pauseUntil(this.clock.now() + rest);
      if (!pace.isPaused(this.clock.now())) return turn;
    }
  }

  /**
   * When a host may be asked, for who has a place now. A turn that passed in waiting for it is the next one’s: another is
   * taken, and waited for in the place where it is no further away than the host’s gap.
   */
  private async turnInPlace(
    host: string,
    pace: HostPace,
    turn: number,
    signal: AbortSignal,
  ): Promise<number> {
    if (this.clock.now() - turn <= onTime && !pace.isPaused(this.clock.now())) return turn;
    const wait = await this.takeTurn(host, pace);
    const next = this.clock.now() + wait;
    if (wait > pace.gapMs) return next;
    if (wait > 0) await this.clock.sleep(wait, signal);
    // The host may have asked for a rest meanwhile.
    return pace.isPaused(this.clock.now()) ? this.turnInPlace(host, pace, next, signal) : next;
  }

  /** Takes a host's next turn. @returns how far away it is, in milliseconds */
  private async takeTurn(host: string, pace: HostPace): Promise<number> {
    const now = this.clock.now();
    const own = pace.takeTurn(now) - now;
    return Math.max(own, (await this.shared?.takeTurn(host, pace.gapMs)) ?? 0);
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
