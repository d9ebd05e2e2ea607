import type { ExportFormat, ExportOptions } from "@vennet/core/publish/formats/formats";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn, longTextColumn } from "../database/json-column.ts";

/** An exported file with its link proof. */
@Entity("export")
@Index("IDX_export_book_format", ["bookId", "format", "createdAt"])
export class Export {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @BelongsTo("Book", "FK_export_book")
  @Column("char", { length: 36 })
  bookId: string;

  /** Who did it; null where nobody was signed in, as in what runs by the calendar. */
  @Column("char", { length: 36, nullable: true })
  accountId: string | null;

  @Column("varchar", { length: 10 })
  format: ExportFormat;

  @Column(jsonColumn())
  options: ExportOptions;

  /** What of the book could not go into it as it is. */
  @Column(jsonColumn())
  warnings: ExportWarning[];

  @Column("int", { unsigned: true })
  tookMs: number;

  /** How often the chapters of its text had been saved, and when the text was last changed. */
  @Column("int", { unsigned: true })
  revision: number;

  @Column("datetime", { precision: 3 })
  textAt: Date;

  /** The number of the page on which each landing place of a PDF falls. */
  @Column(jsonColumn({ nullable: true }))
  pageOfPlace: Record<string, string> | null;

  @Index("IDX_export_file")
  @BelongsTo("StoredFile", "FK_export_file")
  @Column("char", { length: 36 })
  fileId: string;

  @Column("varchar", { length: 255 })
  fileName: string;

  @Column("int", { unsigned: true })
  size: number;

  /** The whole {@link LinkProof} as JSON: of a long book some megabytes. */
  @Column(longTextColumn({ select: false }))
  proof: string;

  /** The proof in numbers: whether all is well, intact and all links, extra ones, and wrong ones of those that follow by themselves. */
  @Column("boolean")
  complete: boolean;

  @Column("int", { unsigned: true })
  intact: number;

  @Column("int", { unsigned: true })
  total: number;

  @Column("int", { unsigned: true })
  extra: number;

  @Column("int", { unsigned: true })
  madeWrong: number;

  /** What else of the file does something to links. */
  @Column("int", { unsigned: true, default: 0 })
  faults: number;

  /** What walking its links came to, the last time; null where nobody has. */
  @Column(jsonColumn({ nullable: true }))
  walk: KeptWalk | null;

  @Column("datetime", { precision: 3 })
  createdAt: Date;
}

/** What walking the links of a file in a reader came to. */
export interface KeptWalk {
  walkedAt: string;
  walked: number;
  /** The links that did not lead where they should. */
  differing: { where: string; text: string; difference: string }[];
}
