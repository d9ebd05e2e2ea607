import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A link that went out by mail: to give a new password, or to confirm a new address. Only its token's hash is kept. */
@Entity("mailed_link")
export class MailedLink {
  @PrimaryColumn("char", { length: 64 })
  tokenHash: string;

  @Index("IDX_mailed_link_account")
  @BelongsTo("Account", "FK_mailed_link_account")
  @Column("char", { length: 36 })
  accountId: string;

  @Column("varchar", { length: 20 })
  purpose: "password" | "email";

  /** The address that is confirmed by it. */
  @Column("varchar", { length: 255, nullable: true })
  email: string | null;

  @Index("IDX_mailed_link_expiry")
  @Column("datetime", { precision: 3 })
  expiresAt: Date;
}
