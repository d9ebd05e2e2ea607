import { Column, CreateDateColumn, Entity, Index, PrimaryColumn } from "typeorm";

@Entity("book")
export class Book {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @Column("char", { length: 36 })
  accountId: string;

  @Column("varchar", { length: 500 })
  title: string;

  @Column("varchar", { length: 200 })
  author: string;

  /** A BCP 47 tag. */
  @Column("varchar", { length: 35, default: "en" })
  language: string;

  /** When any of its text, or its order, was last changed. */
  @Column("datetime", { precision: 3 })
  modifiedAt: Date;

  @CreateDateColumn({ type: "datetime", precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  createdAt: Date;
}
