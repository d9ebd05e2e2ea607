import type { LinkProof } from "@vennet/core/proof/compare";
import type { ExportFormat, ExportOptions } from "@vennet/core/publish/export-options";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { jsonColumn } from "../database/json-column.ts";

/** An exported file with its link proof. */
@Entity("export")
export class Export {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @Column("char", { length: 36 })
  bookId: string;

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

  @Column("char", { length: 36 })
  fileId: string;

  @Column("varchar", { length: 255 })
  fileName: string;

  @Column("int", { unsigned: true })
  size: number;

  @Column(jsonColumn())
  proof: LinkProof;

  @Column("datetime", { precision: 3 })
  createdAt: Date;
}
