import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { longTextColumn } from "../database/json-column.ts";

/** A chapter as it once was: kept before something overwrote it, or because the author named it. */
@Entity("chapter_version")
@Index("IDX_chapter_version_chapter", ["chapterId", "createdAt"])
export class ChapterVersion {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @BelongsTo("Chapter", "FK_chapter_version_chapter")
  @Column("char", { length: 36 })
  chapterId: string;

  @Index("IDX_chapter_version_book")
  @Column("char", { length: 36 })
  bookId: string;

  /** Who did it; null where nobody was signed in, as in what runs by the calendar. */
  @Column("char", { length: 36, nullable: true })
  accountId: string | null;

  /** The chapter's revision that this was. */
  @Column("int")
  revision: number;

  @Column("varchar", { length: 1000 })
  title: string;

  /** As JSON. */
  @Column(longTextColumn())
  document: string;

  @Column("int")
  words: number;

  @Column("int")
  links: number;

  /** The author's own name for it, or null for one that was kept by time. */
  @Column("varchar", { length: 200, nullable: true })
  name: string | null;

  @Column("datetime", { precision: 3 })
  createdAt: Date;
}
