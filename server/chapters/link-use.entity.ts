import { Column, Entity, Index, PrimaryColumn } from "typeorm";

/** One row of the link ledger. Derived from the chapter's document in the transaction that saves it. */
@Entity("link_use")
@Index(["bookId", "askedHash"])
@Index("IDX_link_use_destination", ["bookId", "destinationHash"])
export class LinkUse {
  @PrimaryColumn("char", { length: 36 })
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
