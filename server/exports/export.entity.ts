import type { LinkProof } from "@vennet/core/proof/compare";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { jsonColumn } from "../database/json-column.ts";

export type ExportFormat = "pdf" | "epub";

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

  /** Whether the PDF claims PDF/UA-1; always true for an e-book. */
  @Column("boolean")
  accessible: boolean;

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
