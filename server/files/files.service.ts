import { createHash, randomUUID } from "node:crypto";
import { Readable } from "node:stream";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { CompanionFile } from "@vennet/core/manuscript/book";
import { DataSource, type EntityManager } from "typeorm";
import { notFound, Problem } from "../errors/problem.ts";
import { judgeMediaType, sampleSize } from "./media-type.ts";
import { FileChunk, StoredFile, type FileRole } from "./stored-file.entity.ts";
import { uploadLimit } from "./uploaded-file.ts";

const chunkSize = 1024 * 1024;
const pictureTypes = ["image/png", "image/jpeg", "image/gif"];

/** Keeps files in the database, in chunks, so that no file is ever whole in memory on its way. */
@Injectable()
export class FilesService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  async store(
    file: { bookId: string; name: string; mediaType: string; role: FileRole; bytes: Uint8Array },
    manager: EntityManager = this.database.manager,
  ): Promise<StoredFile> {
    const { bytes, ...about } = file;
    const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    return this.insert(manager, randomUUID(), Readable.from([buffer]), () => Promise.resolve(about));
  }

  /** Stores a picture after looking at its bytes; its name and claimed type are not trusted. */
  async storePicture(
    bookId: string,
    name: string,
    bytes: Uint8Array,
    manager?: EntityManager,
  ): Promise<StoredFile> {
    const { mediaType } = await judgeMediaType(bytes.subarray(0, sampleSize), name);
    if (!pictureTypes.includes(mediaType)) {
      throw new Problem(
        415,
        "picture-type",
        `“${name}” is not a PNG, JPEG or GIF picture. Save it as one of these and bring it again.`,
        "pictures",
      );
    }
    return this.store({ bookId, name, mediaType, role: "picture", bytes }, manager);
  }

  /**
   * Stores a companion file as it arrives. A name that the book has already gets a number.
   * @throws Problem `too-large` past the limit; then nothing is stored
   */
  async storeCompanion(bookId: string, name: string, content: Readable): Promise<Companion> {
    let warning: string | null = null;
    const file = await this.database.transaction((manager) =>
      this.insert(manager, randomUUID(), content, async (sample) => {
        const judged = await judgeMediaType(sample, name);
        warning = judged.warning;
        return {
          bookId,
          name: await this.freeName(manager, bookId, name),
          mediaType: judged.mediaType,
          role: "companion",
        };
      }),
    );
    return { file, warning };
  }

  /** Puts other content into a companion file. Its id and name stay, so every link goes on leading to it. */
  async replaceCompanion(bookId: string, id: string, content: Readable): Promise<Companion> {
    let warning: string | null = null;
    const file = await this.database.transaction(async (manager) => {
      const old = await this.find(bookId, id, manager, "companion");
      await manager.delete(FileChunk, { fileId: id });
      await manager.delete(StoredFile, { id });
      return this.insert(manager, id, content, async (sample) => {
        const judged = await judgeMediaType(sample, old.name);
        warning = judged.warning;
        return { bookId, name: old.name, mediaType: judged.mediaType, role: "companion" };
      });
    });
    return { file, warning };
  }

  async renameCompanion(bookId: string, id: string, name: string): Promise<StoredFile> {
    const clean = name.replace(/[/\\]/g, "-").trim();
    return this.database.transaction(async (manager) => {
      const file = await this.find(bookId, id, manager, "companion");
      const taken = await manager.findOneBy(StoredFile, { bookId, role: "companion", name: clean });
      if (taken && taken.id !== id)
        throw new Problem(409, "name-taken", `The book has a file “${clean}” already.`, "name");
      return manager.save(StoredFile, { ...file, name: clean });
    });
  }

  async removeCompanion(bookId: string, id: string): Promise<void> {
    await this.database.transaction(async (manager) => {
      await this.find(bookId, id, manager, "companion");
      await manager.delete(FileChunk, { fileId: id });
      await manager.delete(StoredFile, { id });
    });
  }

  async companions(bookId: string): Promise<StoredFile[]> {
    return this.database.manager.find(StoredFile, {
      where: { bookId, role: "companion" },
      order: { name: "ASC" },
    });
  }

  /** What is known of a book's companion files, by their ids. */
  async companionFacts(bookId: string): Promise<Map<string, CompanionFile>> {
    return new Map(
      (await this.companions(bookId)).map(({ id, name, mediaType, size }) => [id, { name, mediaType, size }]),
    );
  }

  async find(
    bookId: string,
    id: string,
    manager: EntityManager = this.database.manager,
    role?: FileRole,
  ): Promise<StoredFile> {
    const file = await manager.findOneBy(StoredFile, { id, bookId, ...(role ? { role } : {}) });
    if (!file) throw notFound("file");
    return file;
  }

  /** A file's content, chunk by chunk as it is wanted. */
  stream(id: string): Readable {
    const { manager } = this.database;
    async function* chunks(): AsyncGenerator<Buffer> {
      for (let ordinal = 0; ; ordinal++) {
        const chunk = await manager.findOneBy(FileChunk, { fileId: id, ordinal });
        if (!chunk) return;
        yield chunk.bytes;
      }
    }
    return Readable.from(chunks(), { objectMode: false });
  }

  async read(id: string): Promise<Buffer> {
    const chunks = await this.database.manager.find(FileChunk, {
      where: { fileId: id },
      order: { ordinal: "ASC" },
    });
    return Buffer.concat(chunks.map((chunk) => chunk.bytes));
  }

  async pictures(bookId: string): Promise<StoredFile[]> {
    return this.database.manager.findBy(StoredFile, { bookId, role: "picture" });
  }

  /** Writes a file's chunks as they come, then its row, which needs their size and hash. */
  private async insert(
    manager: EntityManager,
    id: string,
    content: Readable,
    about: (sample: Buffer) => Promise<Pick<StoredFile, "bookId" | "name" | "mediaType" | "role">>,
  ): Promise<StoredFile> {
    const hash = createHash("sha256");
    let size = 0;
    let ordinal = 0;
    let sample: Buffer | null = null;
    let waiting: Buffer[] = [];
    let waitingSize = 0;
    const write = async (): Promise<void> => {
      const bytes = Buffer.concat(waiting);
      waiting = [];
      waitingSize = 0;
      sample ??= bytes.subarray(0, sampleSize);
      for (let from = 0; from < bytes.length; from += chunkSize)
        await manager.insert(FileChunk, {
          fileId: id,
          ordinal: ordinal++,
          bytes: bytes.subarray(from, from + chunkSize),
        });
    };
    // What is left of a refused file has to be read away by whoever reads the form, so it stays open.
    for await (const part of content.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
      size += part.length;
      if (size > uploadLimit) {
        throw new Problem(
          413,
          "too-large",
          "This file is larger than 50 MB. Give readers a shared address for it instead.",
        );
      }
      hash.update(part);
      waiting.push(part);
      waitingSize += part.length;
      if (waitingSize >= chunkSize) await write();
    }
    await write();
    const { name, ...rest } = await about(sample ?? Buffer.alloc(0));
    const row = manager.create(StoredFile, {
      id,
      ...rest,
      name: name.slice(0, 255),
      size,
      sha256: hash.digest("hex"),
      changedAt: new Date(),
    });
    await manager.insert(StoredFile, row);
    return row;
  }

  private async freeName(manager: EntityManager, bookId: string, name: string): Promise<string> {
    const taken = new Set(
      (await manager.findBy(StoredFile, { bookId, role: "companion" })).map((file) =>
        file.name.toLowerCase(),
      ),
    );
    const [, stem = name, ending = ""] = /^(.+?)(\.[^.]*)?$/s.exec(name) ?? [];
    let free = name;
    for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${stem} (${n})${ending}`;
    return free;
  }
}

/** A companion file as it was stored, with what is odd about it. */
export interface Companion {
  file: StoredFile;
  warning: string | null;
}
