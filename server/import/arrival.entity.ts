import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { longTextColumn } from "../database/json-column.ts";

/** A manuscript that was brought in, compared with what was made of it. */
@Entity("arrival")
@Index("IDX_arrival_book", ["bookId", "createdAt"])
export class Arrival {
  /** The id of the job that brought it. */
  @PrimaryColumn("char", { length: 36 })
  id: string;

  /** Null while its author looks at it and has not kept it. */
  @BelongsTo("Book", "FK_arrival_book")
  @Column("char", { length: 36, nullable: true })
  bookId: string | null;

  @Column("varchar", { length: 255 })
  fileName: string;

  /** The proof with like things together, as JSON that nobody on the way looks into. */
  @Column(longTextColumn({ select: false }))
  grouped: string;

  @Column(longTextColumn({ select: false }))
  csv: string;

  /** The documents as they came, with the chapters that they became, as JSON: what a new version is compared with. */
  @Column(longTextColumn({ select: false }))
  documents: string;

  /** What a new version did to its book, as JSON; null for what came in as a book or as chapters. */
  @Column(longTextColumn({ select: false, nullable: true }))
  version: string | null;

  @Index("IDX_arrival_created")
  @Column("datetime", { precision: 3 })
  createdAt: Date;
}
