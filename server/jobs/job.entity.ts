import { Column, CreateDateColumn, Entity, Index, PrimaryColumn } from "typeorm";
import { jsonColumn } from "../database/json-column.ts";

export type JobKind = "reach" | "export";
export type JobState = "waiting" | "running" | "done" | "cancelled" | "failed";

/** A piece of work that outlives a request. All that it needs to be taken up again is here. */
@Entity("job")
export class Job {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @Column("char", { length: 36 })
  bookId: string;

  @Column("varchar", { length: 20 })
  kind: JobKind;

  @Index()
  @Column("varchar", { length: 20 })
  state: JobState;

  @Column(jsonColumn())
  input: Record<string, unknown>;

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
