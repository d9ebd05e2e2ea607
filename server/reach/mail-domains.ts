import { Injectable } from "@nestjs/common";
import { readMailto } from "@vennet/core/destination/mailto";
import { judgeMailDomain, worstOf } from "@vennet/core/reach/mail-domain";
import { outcome, type Outcome } from "@vennet/core/reach/outcome";
import { Resolver } from "./resolver.ts";

/** Asks name servers whether domains take mail. No message is ever sent. */
@Injectable()
export class MailDomains {
  constructor(private readonly resolver: Resolver) {}

  /** The outcome of an email destination. `known` keeps what the domains of one run answered. */
  async visit(address: string, known: Map<string, Promise<Outcome>>): Promise<Outcome> {
    const { to, cc, bcc } = readMailto(address);
    const domains = new Set(
      [...to, ...cc, ...bcc].map((mailbox) => mailbox.split("@").at(-1)!.toLowerCase()),
    );
    if (domains.size === 0) return outcome("broken", "no-exchanger", []);
    return worstOf(await Promise.all([...domains].map((domain) => this.domain(domain, known))));
  }

  private domain(domain: string, known: Map<string, Promise<Outcome>>): Promise<Outcome> {
    const before = known.get(domain);
    if (before) return before;
    const asked = this.resolver.mailRecords(domain).then(judgeMailDomain);
    known.set(domain, asked);
    return asked;
  }
}
