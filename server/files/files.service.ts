import { createHash, randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { fileTypeFromBuffer } from "file-type";
import { DataSource, type EntityManager } from "typeorm";
import { notFound, Problem } from "../errors/problem.ts";
import { FileChunk, StoredFile } from "./stored-file.entity.ts";

const chunkSize = 1024 * 1024;
const pictureTypes = ["image/png", "image/jpeg", "image/gif"];

@Injectable()
export class FilesService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  async store(
    file: { bookId: string; name: string; mediaType: string; bytes: Uint8Array },
    manager: EntityManager = this.database.manager,
  ): Promise<StoredFile> {
    const bytes = Buffer.from(file.bytes.buffer, file.bytes.byteOffset, file.bytes.byteLength);
    const row = manager.create(StoredFile, {
      id: randomUUID(),
      bookId: file.bookId,
      name: file.name.slice(0, 255),
      mediaType: file.mediaType,
      size: bytes.length,
      sha256: createHash("sha256").update(bytes).digest("hex"),
    });
    await manager.insert(StoredFile, row);
    for (let ordinal = 0; ordinal * chunkSize < bytes.length; ordinal++) {
      const chunk = bytes.subarray(ordinal * chunkSize, (ordinal + 1) * chunkSize);
      await manager.insert(FileChunk, { fileId: row.id, ordinal, bytes: chunk });
    }
    return row;
  }

  /** Stores a picture after looking at its bytes; its name and claimed type are not trusted. */
  async storePicture(
    bookId: string,
    name: string,
    bytes: Uint8Array,
    manager?: EntityManager,
  ): Promise<StoredFile> {
    const type = await fileTypeFromBuffer(bytes);
    if (!type || !pictureTypes.includes(type.mime)) {
      throw new Problem(
        415,
        "picture-type",
        `“${name}” is not a PNG, JPEG or GIF picture. Save it as one of these and bring it again.`,
        "pictures",
      );
    }
    return this.store({ bookId, name, mediaType: type.mime, bytes }, manager);
  }

  async find(bookId: string, id: string): Promise<StoredFile> {
    const file = await this.database.manager.findOneBy(StoredFile, { id, bookId });
    if (!file) throw notFound("file");
    return file;
  }

  async read(id: string): Promise<Buffer> {
    const chunks = await this.database.manager.find(FileChunk, {
      where: { fileId: id },
      order: { ordinal: "ASC" },
    });
    return Buffer.concat(chunks.map((chunk) => chunk.bytes));
  }

  async pictures(bookId: string): Promise<StoredFile[]> {
    const files = await this.database.manager.findBy(StoredFile, { bookId });
    return files.filter((file) => pictureTypes.includes(file.mediaType));
  }
}
