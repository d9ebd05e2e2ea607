import { createHash } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { LinkUse } from "../chapters/link-use.entity.ts";
import { Acceptance } from "./acceptance.entity.ts";
import type { AcceptanceRequest } from "./acceptances.contract.ts";

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
    return kept.filter(({ subject, input }) => {
      const now = inputs.get(subject);
      // A link that is gone, or a note, has nothing that could have changed.
      return now === undefined || now.has(input);
    });
  }

  async accept(bookId: string, { subject, rule, reason }: AcceptanceRequest): Promise<void> {
    const [input = ""] = (await this.inputs(bookId, [subject])).get(subject) ?? [];
    await this.database.manager.save(Acceptance, {
      bookId,
      subject,
      rule,
      reason,
      input,
      acceptedAt: new Date(),
    });
  }

  async takeBack(bookId: string, subject: string, rule: string): Promise<void> {
    await this.database.manager.delete(Acceptance, { bookId, subject, rule });
  }

  /** What the rules look at of each link, as a hash. A link may stand in two chapters. */
  private async inputs(bookId: string, subjects: string[]): Promise<Map<string, Set<string>>> {
    const inputs = new Map<string, Set<string>>();
    if (subjects.length === 0) return inputs;
    const uses: Pick<LinkUse, "linkId" | "destination" | "text" | "description">[] =
      await this.database.query(
        `SELECT u.linkId, u.destination, u.text, u.description FROM link_use u
         JOIN chapter c ON c.id = u.chapterId AND c.deletedAt IS NULL WHERE u.bookId = ? AND u.linkId IN (?)`,
        [bookId, subjects],
      );
    for (const { linkId, destination, text, description } of uses) {
      const input = createHash("sha256")
        .update(JSON.stringify([destination, text, description]))
        .digest("hex");
      const own = inputs.get(linkId);
      if (own) own.add(input);
      else inputs.set(linkId, new Set([input]));
    }
    return inputs;
  }
}
