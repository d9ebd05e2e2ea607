import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A signed-in browser or script. Only the hash of its token is kept. */
@Entity("session")
export class Session {
  @PrimaryColumn("char", { length: 64 })
  tokenHash: string;

  /** By which its account may end it. */
  @Index("IDX_session_id", { unique: true })
  @Column("char", { length: 36 })
  id: string;

  @Index()
  @BelongsTo("Account", "FK_session_account")
  @Column("char", { length: 36 })
  accountId: string;

  /** What the browser or script calls itself. */
  @Column("varchar", { length: 300 })
  device: string;

  @Column("datetime", { precision: 3 })
  createdAt: Date;

  @Column("datetime", { precision: 3 })
  lastSeenAt: Date;

  @Index("IDX_session_expiry")
  @Column("datetime", { precision: 3 })
  expiresAt: Date;
}
