import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** One row of the link ledger. Derived from the chapter's document in the transaction that saves it. */
@Entity("link_use")
@Index(["bookId", "askedHash"])
@Index("IDX_link_use_destination", ["bookId", "destinationHash"])
@Index("IDX_link_use_file", ["bookId", "fileId"])
@Index("IDX_link_use_place", ["bookId", "placeId"])
export class LinkUse {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Chapter", "FK_link_use_chapter")
  chapterId: string;

  /** The link's place among the links of its chapter, from 0. */
  @PrimaryColumn("int")
  ordinal: number;

  @Column("char", { length: 36 })
  bookId: string;

  /** The id in the link's mark. */
  @Column("varchar", { length: 64 })
  linkId: string;

  @Column("varchar", { length: 10 })
  kind: string;

  /** The destination as one line of text. */
  @Column("text")
  destination: string;

  /** The companion file to which it leads; null where it leads to none. */
  @Column("varchar", { length: 64, nullable: true })
  fileId: string | null;

  /** The place to which it leads; null where it leads to none. */
  @Column("varchar", { length: 64, nullable: true })
  placeId: string | null;

  /** What is asked: a page without its fragment, or an email; null where nothing is. */
  @Column("text", { nullable: true })
  askedAddress: string | null;

  /** The host with its port that is asked, or `mail:` for name servers; null where nothing is asked. */
  @Column("varchar", { length: 300, nullable: true })
  host: string | null;

  /** SHA-256 of the destination, under which what came of asking is kept; null where nothing is asked. */
  @Column("char", { length: 64, nullable: true })
  destinationHash: string | null;

  /** SHA-256 of what is asked: a page without its fragment, or an email's domains; null where nothing is. */
  @Column("char", { length: 64, nullable: true })
  askedHash: string | null;

  @Column("text")
  text: string;

  @Column("text", { nullable: true })
  description: string | null;

  /** What it covers: words, a picture, or an area of one; or that it is a cross-reference. */
  @Column("varchar", { length: 10 })
  coverage: string;

  /** The words of the heading that it stands under; empty before the first. */
  @Column("varchar", { length: 1000 })
  heading: string;
}
