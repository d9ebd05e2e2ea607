import { Column, CreateDateColumn, Entity, PrimaryColumn } from "typeorm";

/** Somebody who may sign in. */
@Entity("account")
export class Account {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  /** In lower case; told apart from others to the letter. */
  @Column({ type: "varchar", length: 255, unique: true, collation: "utf8mb4_bin" })
  email: string;

  @Column("varchar", { length: 200 })
  name: string;

  /** An argon2id hash in PHC form. */
  @Column("varchar", { length: 255 })
  passwordHash: string;

  @CreateDateColumn({ type: "datetime", precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  createdAt: Date;
}
