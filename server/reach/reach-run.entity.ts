import type { ReachState } from "@vennet/core/reach/outcome";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn } from "../database/json-column.ts";

/** How many destinations of a book are in each state. */
export type StateCounts = Record<ReachState | "unchecked", number>;

/** What one run over a book came to. */
@Entity("reach_run")
@Index("IDX_reach_run_book", ["bookId", "startedAt"])
export class ReachRun {
  @PrimaryColumn("char", { length: 36 })
  jobId: string;

  @BelongsTo("Book", "FK_reach_run_book")
  @Column("char", { length: 36 })
  bookId: string;

  @Column("datetime", { precision: 3 })
  startedAt: Date;

  @Column("datetime", { precision: 3, nullable: true })
  endedAt: Date | null;

  /** How many pages and emails were asked. */
  @Column("int", { default: 0 })
  asked: number;

  /** The states of all destinations of the book at the run's end, asked in it or before. */
  @Column(jsonColumn({ nullable: true }))
  counts: StateCounts | null;

  /** How many destinations broke since they were asked before, and how many that were broken are well again. */
  @Column("int", { default: 0 })
  newlyBroken: number;

  @Column("int", { default: 0 })
  wellAgain: number;
}
