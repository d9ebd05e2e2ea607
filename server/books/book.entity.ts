import type { Conventions } from "@vennet/core/manuscript/conventions";
import type { LinkLooks } from "@vennet/core/manuscript/looks";
import { Column, CreateDateColumn, Entity, Index, PrimaryColumn } from "typeorm";
import { jsonColumn } from "../database/json-column.ts";

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

  /** How its links look; null for the usual. */
  @Column(jsonColumn({ nullable: true }))
  looks: LinkLooks | null;

  /** What it counts, and where its notes stand; null for the usual. */
  @Column(jsonColumn({ nullable: true }))
  conventions: Conventions | null;

  /** When any of its text, or its order, was last changed. */
  @Column("datetime", { precision: 3 })
  modifiedAt: Date;

  @CreateDateColumn({ type: "datetime", precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  createdAt: Date;
}
