import { createHash } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { actingAccount } from "../access/acting-account.ts";
import { Acceptance } from "./acceptance.entity.ts";
import type { AcceptanceRequest } from "./acceptances.dto.ts";
import { linksInUse, withOutcomes } from "../ledger/rows-in-use.ts";

/** Keeps the findings that an author accepts, each until the link that it is about is changed. */
@Injectable()
export class AcceptancesService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** The acceptances that still hold. */
  async list(bookId: string): Promise<Acceptance[]> {
    const kept = await this.database.manager.find(Acceptance, {
      where: { bookId },
      order: { acceptedAt: "DESC" },
    });
    const inputs = await this.inputs(
      bookId,
      kept.map(({ subject }) => subject),
    );
    return kept.filter(({ subject, rule, input }) => {
      const now = inputs.get(subject);
      // A link that is gone, or a note, has nothing that could have changed.
      return now === undefined || now.some((use) => inputOf(use, rule) === input);
    });
  }

  /** Keeps a finding on purpose, with its reason; it comes up again when what it was about has changed. */
  async accept(bookId: string, { subject, rule, reason }: AcceptanceRequest): Promise<void> {
    const [use] = (await this.inputs(bookId, [subject])).get(subject) ?? [];
    const input = use ? inputOf(use, rule) : "";
    const accountId = actingAccount();
    await this.database.manager.upsert(
      Acceptance,
      { bookId, subject, rule, reason, input, accountId, acceptedAt: new Date() },
      ["bookId", "subject", "rule"],
    );
  }

  /** Takes an acceptance back: its finding counts again. */
  async takeBack(bookId: string, subject: string, rule: string): Promise<void> {
    await this.database.manager.delete(Acceptance, { bookId, subject, rule });
  }

  /** What the rules look at of each link. A link may stand in two chapters. */
  private async inputs(bookId: string, subjects: string[]): Promise<Map<string, Input[]>> {
    const inputs = new Map<string, Input[]>();
    if (subjects.length === 0) return inputs;
    const uses: (Input & { linkId: string })[] = await this.database.query(
      `SELECT u.linkId, u.destination, u.text, u.description, o.state, o.code, o.movedTo, o.secure FROM ${linksInUse}
       ${withOutcomes}
       WHERE u.bookId = ? AND u.linkId IN (?)`,
      [bookId, subjects],
    );
    for (const { linkId, ...input } of uses) {
      const own = inputs.get(linkId);
      if (own) own.push(input);
      else inputs.set(linkId, [input]);
    }
    return inputs;
  }
}

interface Input {
  destination: string;
  text: string;
  description: string | null;
  state: string | null;
  code: string | null;
  movedTo: string | null;
  secure: string | null;
}

/** A hash of what a rule looks at of a link: the link, and for some rules what its destination answered. */
function inputOf({ destination, text, description, ...answer }: Input, rule: string): string {
  const isAboutAnswer = /^(?:destination|https)-/.test(rule);
  const seen = [destination, text, description, ...(isAboutAnswer ? Object.values(answer) : [])];
  return createHash("sha256").update(JSON.stringify(seen)).digest("hex");
}
