import type { LinkProof } from "@vennet/core/proof/compare";
import type { ExportFormat } from "@vennet/core/proof/exported-link";
import type { PrintedAddresses } from "@vennet/core/publish/typeset";
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

  /** Whether the PDF claims PDF/UA-1; always true for other formats. */
  @Column("boolean")
  accessible: boolean;

  /** How a PDF for print shows web addresses. */
  @Column("varchar", { length: 10, default: "none" })
  addresses: PrintedAddresses;

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
