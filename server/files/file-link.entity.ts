import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A link that leaves a companion file. Derived from the file’s bytes when it is first looked at. */
@Entity("file_link")
@Index("IDX_file_link_asked", ["bookId", "askedHash"])
export class FileLink {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("StoredFile", "FK_file_link_file")
  fileId: string;

  @PrimaryColumn("int")
  ordinal: number;

  @Column("char", { length: 36 })
  bookId: string;

  /** The destination as one line of text. */
  @Column("text")
  destination: string;

  /** The first page of the file on which it stands, from 1. */
  @Column("int")
  page: number;

  /** What is asked, of whom, and the SHA-256 of that, as for links of the book; null where nothing is. */
  @Column("text", { nullable: true })
  askedAddress: string | null;

  @Column("varchar", { length: 300, nullable: true })
  host: string | null;

  @Column("char", { length: 64, nullable: true })
  askedHash: string | null;
}
