import { Column, Entity, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A finding that the author keeps on purpose, until what it is about changes. */
@Entity("acceptance")
export class Acceptance {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Book", "FK_acceptance_book")
  bookId: string;

  /** Who did it; null where nobody was signed in, as in what runs by the calendar. */
  @Column("char", { length: 36, nullable: true })
  accountId: string | null;

  /** The id of the link or other thing that it was found at. */
  @PrimaryColumn("varchar", { length: 64 })
  subject: string;

  @PrimaryColumn("varchar", { length: 40 })
  rule: string;

  @Column("varchar", { length: 500 })
  reason: string;

  /** SHA-256 of what the link was like then; empty for what is no link. */
  @Column("varchar", { length: 64 })
  input: string;

  @Column("datetime", { precision: 3 })
  acceptedAt: Date;
}
