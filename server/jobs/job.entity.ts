import { Column, CreateDateColumn, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn } from "../database/json-column.ts";

export type JobState = "waiting" | "running" | "done" | "cancelled" | "failed";

/** A piece of work that outlives a request. All that it needs to be taken up again is here. */
@Entity("job")
export class Job {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  /** Null while the book that it makes is not there yet. */
  @Index()
  @BelongsTo("Book", "FK_job_book")
  @Column("char", { length: 36, nullable: true })
  bookId: string | null;

  /** Who did it; null where nobody was signed in, as in what runs by the calendar. */
  @Column("char", { length: 36, nullable: true })
  accountId: string | null;

  /** Which room does it. */
  @Column("varchar", { length: 20 })
  kind: string;

  @Index()
  @Column("varchar", { length: 20 })
  state: JobState;

  @Column(jsonColumn())
  input: Record<string, unknown>;

  /** What it made, where that is more than words; null until it has. */
  @Column(jsonColumn({ nullable: true }))
  output: Record<string, unknown> | null;

  @Column("int", { default: 0 })
  done: number;

  @Column("int", { default: 0 })
  total: number;

  /** What it is at, in words for the author; why it failed, where it has failed. */
  @Column("text")
  message: string;

  @CreateDateColumn({ type: "datetime", precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  createdAt: Date;
}
