import { Column, Entity, PrimaryColumn } from "typeorm";

/** A link with which one account may be made. Only its token's hash is kept. */
@Entity("invitation")
export class Invitation {
  @PrimaryColumn("char", { length: 64 })
  tokenHash: string;

  @Column("datetime", { precision: 3 })
  expiresAt: Date;
}
