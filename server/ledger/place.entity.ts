import type { Place as CorePlace } from "@vennet/core/manuscript/outline";
import { jsonColumn } from "../database/json-column.ts";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A landing place of a chapter. Derived from its document, as the ledger's rows are. */
@Entity("place")
@Index("IDX_place_book", ["bookId", "placeId"])
export class Place {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Chapter", "FK_place_chapter")
  chapterId: string;

  @PrimaryColumn("int")
  ordinal: number;

  @Column("char", { length: 36 })
  bookId: string;

  /** The id of the title, heading, anchor, note, caption or signpost list. */
  @Column("varchar", { length: 64 })
  placeId: string;

  @Column("varchar", { length: 10 })
  kind: CorePlace["kind"];

  @Column("int", { nullable: true })
  level: number | null;

  @Column("varchar", { length: 1000 })
  text: string;

  /** The words that stand there, shortened. */
  @Column("varchar", { length: 100, default: "" })
  context: string;

  /** A note's number within its chapter. */
  @Column("int", { nullable: true })
  noteOrdinal: number | null;

  /** The note in which it stands, or which it is. */
  @Column("varchar", { length: 64, nullable: true })
  note: string | null;

  /** What a signpost list lists. */
  @Column(jsonColumn({ nullable: true }))
  list: CorePlace["list"];
}
