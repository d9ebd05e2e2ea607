import { Column, Entity, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";

/** A copy of a linked page that travels with the book as a companion file. One for each page, of the last time that it was kept. */
@Entity("kept_copy")
export class KeptCopy {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("Book", "FK_kept_copy_book")
  bookId: string;

  /** SHA-256 of the page's address, as links know it. */
  @PrimaryColumn("char", { length: 64 })
  askedHash: string;

  @Column("char", { length: 36 })
  @BelongsTo("StoredFile", "FK_kept_copy_file")
  fileId: string;

  @Column("datetime", { precision: 3 })
  keptAt: Date;
}
