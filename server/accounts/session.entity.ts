import { Column, Entity, Index, PrimaryColumn } from "typeorm";

/** A signed-in browser or script. Only the hash of its token is kept. */
@Entity("session")
export class Session {
  @PrimaryColumn("char", { length: 64 })
  tokenHash: string;

  @Index()
  @Column("char", { length: 36 })
  accountId: string;

  @Column("datetime", { precision: 3 })
  expiresAt: Date;
}
