import type { Fingerprint, PageChange } from "@vennet/core/reach/fingerprint";
import type { Hop, OutcomeCode, ReachState } from "@vennet/core/reach/outcome";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn } from "../database/json-column.ts";

/** What asking a destination showed last. One row for every distinct destination of a book that can be asked. */
@Entity("reach_outcome")
@Index("IDX_reach_outcome_known", ["bookId", "destinationHash", "state", "checkedAt"])
export class ReachOutcome {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Book", "FK_reach_outcome_book")
  bookId: string;

  @PrimaryColumn("char", { length: 64 })
  destinationHash: string;

  @Column("varchar", { length: 10 })
  state: ReachState;

  @Column("varchar", { length: 30 })
  code: OutcomeCode;

  @Column(jsonColumn())
  hops: Hop[];

  @Column("text", { nullable: true })
  movedTo: string | null;

  @Column("varchar", { length: 300, nullable: true })
  title: string | null;

  @Column("text", { nullable: true })
  secure: string | null;

  @Column("datetime", { precision: 3 })
  checkedAt: Date;

  /** Since when it has been in this state, as far as it was asked. */
  @Column("datetime", { precision: 3 })
  since: Date;

  /** The state before this one; null where it has had no other. */
  @Column("varchar", { length: 10, nullable: true })
  previous: ReachState | null;

  @Column("datetime", { precision: 3, nullable: true })
  lastSoundAt: Date | null;

  /** What the page was like when it was first found well, or when its author last said that it is still right. */
  @Column(jsonColumn({ nullable: true, select: false }))
  fingerprint: Fingerprint | null;

  /** What it was like when it was asked last, where that is another page than it was. */
  @Column(jsonColumn({ nullable: true, select: false }))
  latest: Fingerprint | null;

  /** What of it is another now; null where it is what it was. */
  @Column(jsonColumn({ nullable: true }))
  changed: PageChange | null;

  /** When that was first seen. */
  @Column("datetime", { precision: 3, nullable: true })
  changedAt: Date | null;

  /** When somebody last looked at what asking cannot judge, and found it well. */
  @Column("datetime", { precision: 3, nullable: true })
  lookedAt: Date | null;
}
