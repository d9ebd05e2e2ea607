import type { ReachState } from "@vennet/core/reach/outcome";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** One page or email that a run has to ask, or has asked. The rows go when the run has ended. */
@Entity("reach_ask")
@Index("IDX_reach_ask_state", ["jobId", "state", "host"])
export class ReachAsk {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Job", "FK_reach_ask_job")
  jobId: string;

  @PrimaryColumn("char", { length: 64 })
  askedHash: string;

  /** The host with its port, or `mail:` for emails: the part of a run that one worker does. */
  @Column("varchar", { length: 300 })
  host: string;

  @Column("text")
  address: string;

  /** The worst state of the destinations that it answers for; null until it has been asked. */
  @Column("varchar", { length: 10, nullable: true })
  state: ReachState | null;
}
