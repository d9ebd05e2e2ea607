import { Column, Entity, Index, PrimaryColumn } from "typeorm";

export type FileRole = "picture" | "companion" | "export";

/** A picture, a companion file or an exported file. Its bytes lie in chunks, so that one database backup is whole. */
@Entity("stored_file")
export class StoredFile {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @Index()
  @Column("char", { length: 36 })
  bookId: string;

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

  @Column("datetime", { precision: 3, default: () => "CURRENT_TIMESTAMP(3)" })
  changedAt: Date;
}

@Entity("file_chunk")
export class FileChunk {
  @PrimaryColumn("char", { length: 36 })
  fileId: string;

  @PrimaryColumn("int")
  ordinal: number;

  @Column("mediumblob")
  bytes: Buffer;
}
