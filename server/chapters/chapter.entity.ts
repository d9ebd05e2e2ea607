import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { longTextColumn } from "../database/json-column.ts";

/** A chapter or companion page: its document and the revision of that. */
@Entity("chapter")
@Index(["bookId", "position"])
export class Chapter {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @BelongsTo("Book", "FK_chapter_book")
  @Column("char", { length: 36 })
  bookId: string;

  @Column("int")
  position: number;

  /** A companion page stands outside the reading order and is there to be linked to. */
  @Column("varchar", { length: 10, default: "chapter" })
  role: ChapterRole;

  /** The words of the document's title node; kept here so that lists need not read documents. */
  @Column("varchar", { length: 1000 })
  title: string;

  /** As JSON, in which most who carry it on never look: a long one costs everybody else a wait. */
  @Column(longTextColumn())
  document: string;

  /** Counts the saves. A save names the revision that it was made on. */
  @Column("int", { default: 1 })
  revision: number;

  @Column("int", { default: 0 })
  words: number;

  /** SHA-256 of the links and of the places that follow from the document, as they were last written as rows. */
  @Column("char", { length: 64, nullable: true })
  linksHash: string | null;

  @Column("char", { length: 64, nullable: true })
  placesHash: string | null;

  /** Set when the chapter was deleted; it can be restored. */
  @Column("datetime", { precision: 3, nullable: true })
  deletedAt: Date | null;
}
