import type { OutcomeCode, ReachState } from "@vennet/core/reach/outcome";
import { Column, Entity, Index, PrimaryGeneratedColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** One answer in the history of a destination. None is ever changed. */
@Entity("reach_answer")
@Index("IDX_reach_answer_destination", ["bookId", "destinationHash", "id"])
export class ReachAnswer {
  @PrimaryGeneratedColumn({ type: "bigint" })
  id: string;

  @BelongsTo("Book", "FK_reach_answer_book")
  @Column("char", { length: 36 })
  bookId: string;

  @Column("char", { length: 64 })
  destinationHash: string;

  @Column("varchar", { length: 10 })
  state: ReachState;

  @Column("varchar", { length: 30 })
  code: OutcomeCode;

  @Column("int", { nullable: true })
  status: number | null;

  @Column("text", { nullable: true })
  movedTo: string | null;

  @Column("datetime", { precision: 3 })
  checkedAt: Date;
}
