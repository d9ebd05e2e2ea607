import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A signed-in browser or script. Only the hash of its token is kept. */
@Entity("session")
export class Session {
  @PrimaryColumn("char", { length: 64 })
  tokenHash: string;

  @Index()
  @BelongsTo("Account", "FK_session_account")
  @Column("char", { length: 36 })
  accountId: string;

  @Index("IDX_session_expiry")
  @Column("datetime", { precision: 3 })
  expiresAt: Date;
}
