import { lookup } from "node:dns/promises";
import { Injectable } from "@nestjs/common";
import { isReservedName, judgeAddress } from "@vennet/core/reach/address-policy";
import type { Failure } from "@vennet/core/reach/outcome";
import { isIP } from "node:net";
import { Settings } from "../settings.ts";

/** Where a connection goes: one judged IP address, and for the stand-ins the port they listen on. */
export interface Endpoint {
  ip: string;
  port: number;
  /** Whether a stand-in answers there; its certificate is trusted for such connections alone. */
  isStandIn: boolean;
}

/** A destination that may not or cannot be connected to. Thrown before any connection is made. */
export class ReachFailure extends Error {
  override readonly name = "ReachFailure";
  constructor(readonly failure: Failure) {
    super(failure.code);
  }
}

const standInNamesTtl = 5_000;

/**
 * Turns a host into the one address that is connected to. A name is resolved once; what comes out is
 * judged by the address policy, and nothing resolves it again before the connection. Reserved names go
 * to the stand-ins, and nowhere else.
 */
@Injectable()
export class Resolver {
  private standInNames: { hosts: Set<string>; readAt: number } | null = null;

  constructor(private readonly settings: Settings) {}

  async endpoint(host: string, port: number, secure: boolean): Promise<Endpoint> {
    if (isReservedName(host)) return this.standIn(host, secure);
    const bare = host.replace(/^\[|\]$/g, "");
    const addresses = isIP(bare) ? [bare] : await this.resolve(bare);
    // One public address is no reason to trust a name that also points inside.
    for (const address of addresses) {
      const refusal = judgeAddress(address);
      if (refusal) throw new ReachFailure(refusal);
    }
    return { ip: addresses[0]!, port, isStandIn: false };
  }

  private async resolve(name: string): Promise<string[]> {
    try {
      return (await lookup(name, { all: true })).map(({ address }) => address);
    } catch (error) {
      const code = (error as NodeJS.ErrnoException).code;
      throw new ReachFailure({
        code: code === "ENOTFOUND" || code === "ENODATA" ? "unknown-name" : "name-server",
      });
    }
  }

  private async standIn(host: string, secure: boolean): Promise<Endpoint> {
    const { standIns } = this.settings;
    if (
      !standIns ||
      !(await this.standInHosts(standIns.httpPort)).has(host.toLowerCase().replace(/\.$/, ""))
    ) {
      throw new ReachFailure({ code: "unknown-name" });
    }
    return { ip: "127.0.0.1", port: secure ? standIns.tlsPort : standIns.httpPort, isStandIn: true };
  }

  private async standInHosts(port: number): Promise<Set<string>> {
    if (!this.standInNames || Date.now() - this.standInNames.readAt > standInNamesTtl) {
      const answer = await fetch(`http://127.0.0.1:${port}/.names`).catch(() => {
        throw new ReachFailure({ code: "name-server" });
      });
      this.standInNames = { hosts: new Set((await answer.json()) as string[]), readAt: Date.now() };
    }
    return this.standInNames.hosts;
  }
}
