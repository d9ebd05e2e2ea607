import { CodedError } from "@vennet/core/errors";
import { lookup, resolve4, resolve6, resolveMx } from "node:dns/promises";
import { Injectable, Optional } from "@nestjs/common";
import { isReservedName, judgeAddress } from "@vennet/core/reach/address-policy";
import type { MailRecords } from "@vennet/core/reach/mail-domain";
import type { Failure } from "@vennet/core/reach/outcome";
import { isIP } from "node:net";
import { Settings } from "../settings.ts";

/** Where a connection goes: a host's judged IP addresses, and for the stand-ins the port they listen on. */
export interface Endpoint {
  /** At least one, in the order in which they are asked. */
  addresses: string[];
  port: number;
  /** Whether a stand-in answers there; its certificate is trusted for such connections alone. */
  isStandIn: boolean;
}

/** A destination that may not or cannot be connected to. Thrown before any connection is made. */
export class ReachFailure extends CodedError {
  constructor(readonly failure: Failure) {
    super(failure.code, `It cannot be reached: ${failure.code}.`);
  }
}

type StandInMail = Exclude<MailRecords, { failure: unknown }> | { failure: "unknown-name" | "name-server" };
type LookUp = (name: string, options: { all: true }) => Promise<{ address: string }[]>;
type NameState = "known" | "unknown" | "fails";

const standInNamesTtl = 5_000;
const standInNamesKept = 20_000;

/**
 * Turns a host into the addresses that are connected to. A name is resolved once; what comes out is
 * judged by the address policy, and nothing resolves it again before the connection. Reserved names go
 * to the stand-ins, and nowhere else.
 */
@Injectable()
export class Resolver {
  private readonly standInNames = new Map<string, { state: Promise<NameState>; askedAt: number }>();

  /** @param lookUp as the system's resolver does it; tests give what no resolver on this machine would */
  constructor(
    private readonly settings: Settings,
    @Optional() private readonly lookUp: LookUp = lookup,
  ) {}

  /**
   * Where to connect to for a host, judged by the address policy.
   * @throws ReachFailure for a name that is not known, and for an address that is refused
   */
  async endpoint(host: string, port: number, secure: boolean): Promise<Endpoint> {
    if (isReservedName(host)) return this.standIn(host, secure);
    const bare = host.replace(/^\[|\]$/g, "");
    const addresses = isIP(bare) ? [bare] : await this.resolve(bare);
    // Without an address, a connection would go to this machine.
    if (addresses.length === 0) throw new ReachFailure({ code: "unknown-name" });
    // One public address is no reason to trust a name that also points inside.
    for (const address of addresses) {
      const refusal = judgeAddress(address);
      if (refusal) throw new ReachFailure(refusal);
    }
    return { addresses, port, isStandIn: false };
  }

  /** What a domain's name servers say of its mail. Of a reserved name the stand-in mail says it. */
  async mailRecords(domain: string): Promise<MailRecords> {
    if (isReservedName(domain)) return this.standInMail(domain);
    try {
      const found = await resolveMx(domain).catch(absent);
      const exchangers = (found ?? []).map(({ priority, exchange }) => ({
        preference: priority,
        name: exchange.replace(/\.$/, ""),
      }));
      const hasAddress =
        exchangers.length > 0 ||
        (await resolve4(domain).catch(absent)) !== null ||
        (await resolve6(domain).catch(absent)) !== null;
      return { exchangers, hasAddress };
    } catch (error) {
      return { failure: { code: isUnknownName(error) ? "unknown-name" : "name-server" } };
    }
  }

  private async resolve(name: string): Promise<string[]> {
    try {
      return (await this.lookUp(name, { all: true })).map(({ address }) => address);
    } catch (error) {
      throw new ReachFailure({ code: isUnknownName(error) ? "unknown-name" : "name-server" });
    }
  }

  private async standIn(host: string, secure: boolean): Promise<Endpoint> {
    const { standIns } = this.settings;
    const state = await this.standInName(host.toLowerCase().replace(/\.$/, ""));
    if (!standIns || state === "unknown") throw new ReachFailure({ code: "unknown-name" });
    if (state === "fails") throw new ReachFailure({ code: "name-server" });
    return { addresses: ["127.0.0.1"], port: secure ? standIns.tlsPort : standIns.httpPort, isStandIn: true };
  }

  private standInName(host: string): Promise<NameState> {
    const known = this.standInNames.get(host);
    if (known && Date.now() - known.askedAt < standInNamesTtl) return known.state;
    if (this.standInNames.size >= standInNamesKept) this.standInNames.clear();
    const state = this.askStandIns<NameState>(`.name?host=${encodeURIComponent(host)}`);
    this.standInNames.set(host, { state, askedAt: Date.now() });
    state.catch(() => this.standInNames.delete(host));
    return state;
  }

  private async standInMail(domain: string): Promise<MailRecords> {
    if (!this.settings.standIns) return { failure: { code: "unknown-name" } };
    try {
      const answer = await this.askStandIns<StandInMail>(`.mail?domain=${encodeURIComponent(domain)}`);
      return "failure" in answer ? { failure: { code: answer.failure } } : answer;
    } catch {
      return { failure: { code: "name-server" } };
    }
  }

  private async askStandIns<T>(question: string): Promise<T> {
    const { standIns } = this.settings;
    if (!standIns) throw new ReachFailure({ code: "unknown-name" });
    const answer = await fetch(`http://127.0.0.1:${standIns.httpPort}/${question}`).catch(() => {
      throw new ReachFailure({ code: "name-server" });
    });
    return (await answer.json()) as T;
  }
}

function isUnknownName(error: unknown): boolean {
  return (error as NodeJS.ErrnoException).code === "ENOTFOUND";
}

/** The name exists, but has no record of the kind that was asked for. */
function absent(error: unknown): null {
  if ((error as NodeJS.ErrnoException).code === "ENODATA") return null;
  throw error;
}
