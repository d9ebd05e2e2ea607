import type { Hop, OutcomeCode, ReachState } from "@vennet/core/reach/outcome";
import { Column, Entity, PrimaryColumn } from "typeorm";
import { jsonColumn } from "../database/json-column.ts";

/** What asking an address showed last. One row for every distinct address of a book. */
@Entity("reach_outcome")
export class ReachOutcome {
  @PrimaryColumn("char", { length: 36 })
  bookId: string;

  @PrimaryColumn("char", { length: 64 })
  askedHash: string;

  @Column("varchar", { length: 10 })
  state: ReachState;

  @Column("varchar", { length: 30 })
  code: OutcomeCode;

  @Column(jsonColumn())
  hops: Hop[];

  @Column("text", { nullable: true })
  movedTo: string | null;

  @Column("datetime", { precision: 3 })
  checkedAt: Date;
}
