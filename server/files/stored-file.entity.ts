import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import type { FaceFacts } from "@vennet/core/manuscript/book-fonts";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { jsonColumn } from "../database/json-column.ts";

/** What is kept of a file whose places cannot be read, so that it is tried once. */
export interface UnreadPlaces {
  isUnread: true;
}

/** A file of another publication of the same Shelf, as it went out there. */
export interface FileSource {
  bookId: string;
  /** Of what went out, which is a folder where that publication has companion files. */
  sha256: string;
}

/** What a file is for; one that was sent for an import belongs to no book yet. */
export type FileRole = "picture" | "companion" | "font" | "export" | "upload" | "finished";

/** A picture, a companion file, a font or an exported file. Its bytes lie in chunks, so that one database backup is whole. */
@Entity("stored_file")
export class StoredFile {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @BelongsTo("Book", "FK_stored_file_book")
  @Column("char", { length: 36, nullable: true })
  bookId: string | null;

  @Column("varchar", { length: 255 })
  name: string;

  @Column("varchar", { length: 100 })
  mediaType: string;

  @Column("int", { unsigned: true })
  size: number;

  @Column("char", { length: 64 })
  sha256: string;

  @Column("varchar", { length: 10, default: "picture" })
  role: FileRole;

  /** Whether a picture can be decoded; null until it was tried, and for other files. */
  @Column("boolean", { nullable: true })
  isSound: boolean | null;

  /** What is known of a font; null for other files. */
  @Column(jsonColumn({ nullable: true }))
  font: FaceFacts | null;

  /** To which of its pages and places links can lead; null until it was looked at, and for files that have none. */
  @Column(jsonColumn({ nullable: true }))
  places: FilePlaces | UnreadPlaces | null;

  /** A picture's width and height; null until it was looked at, and for other files. */
  @Column(jsonColumn({ nullable: true }))
  pixels: { width: number; height: number } | null;

  /** Of which other publication a companion file is; null for one that the author brought. */
  @Column(jsonColumn({ nullable: true }))
  source: FileSource | null;

  /** Whether it was read where its own links lead. */
  @Column("boolean", { default: false })
  hasLinksRead: boolean;

  @Column("datetime", { precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  changedAt: Date;
}

/** A piece of a file's bytes; pieces are numbered from 0. */
@Entity("file_chunk")
export class FileChunk {
  @PrimaryColumn("char", { length: 36 })
  @BelongsTo("StoredFile", "FK_file_chunk_file")
  fileId: string;

  @PrimaryColumn("int")
  ordinal: number;

  @Column("mediumblob")
  bytes: Buffer;
}
