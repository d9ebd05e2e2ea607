import type { FinishedFormat } from "@vennet/core/finished/finished-format";
import type { BookFonts } from "@vennet/core/manuscript/book-fonts";
import type { Conventions } from "@vennet/core/manuscript/conventions";
import type { PageLayout } from "@vennet/core/manuscript/page-layout";
import type { LinkLooks } from "@vennet/core/manuscript/looks";
import type { Preset } from "@vennet/core/publish/formats/formats";
import { Column, CreateDateColumn, DeleteDateColumn, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn } from "../database/json-column.ts";

/** What is known of a finished file that a publication is. */
export interface FinishedFile {
  format: FinishedFormat;
  /** The file that came, which stays as it is. */
  fileId: string;
  fileName: string;
  pages: number;
  isTagged: boolean;
  isSigned: boolean;
  /** Left out of files that came before it was asked. */
  hasBrokenTable?: boolean;
  /** With which it opens, or its owner’s; left out where it needs none. It is told to whoever may open the publication. */
  password?: string;
}

/** A publication and whose it is: a book, or a finished file whose links are worked on. */
@Entity("book")
export class Book {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @BelongsTo("Account", "FK_book_account")
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

  /** How the pages of its PDF are laid out; null for the usual. */
  @Column(jsonColumn({ nullable: true }))
  layout: PageLayout | null;

  /** In which fonts of the author's own it is set; null for the usual. */
  @Column(jsonColumn({ nullable: true }))
  fonts: BookFonts | null;

  /** Its sets of choices for exports; null for none. */
  @Column(jsonColumn({ nullable: true }))
  presets: Preset[] | null;

  /** The finished file that it is; null for a book, which has a manuscript. */
  @Column(jsonColumn({ nullable: true }))
  finished: FinishedFile | null;

  /** Who reads it: anyone, or the group of this name, whose members may open what is shared with them. */
  @Column("varchar", { length: 200, default: "anyone" })
  audience: string;

  /** For how many hours an answer of a server counts as fresh. */
  @Column("int", { default: 24 })
  freshHours: number;

  /** When its destinations are asked by themselves, as a cron expression in UTC; null for never. */
  @Column("varchar", { length: 100, nullable: true })
  schedule: string | null;

  @Index("IDX_book_next_run")
  @Column("datetime", { precision: 3, nullable: true })
  nextRunAt: Date | null;

  /** When any of its text, or its order, was last changed. */
  @Column("datetime", { precision: 3 })
  modifiedAt: Date;

  @CreateDateColumn({ type: "datetime", precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  createdAt: Date;

  /** Set when it was deleted: nothing finds it then that does not look for deleted books. It can be brought back. */
  @Index("IDX_book_deleted")
  @DeleteDateColumn({ type: "datetime", precision: 3 })
  deletedAt: Date | null;
}
