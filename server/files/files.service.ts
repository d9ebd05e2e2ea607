import { createHash, randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { readFile, writeFile } from "node:fs/promises";
import { Readable } from "node:stream";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { pictureKind } from "@vennet/core/import/pictures";
import type { FaceFacts } from "@vennet/core/manuscript/book-fonts";
import type { CompanionFile } from "@vennet/core/manuscript/book";
import { DataSource, type EntityManager } from "typeorm";
import { notFound, Problem } from "../errors/problem.ts";
import { judgeMediaType, sampleSize } from "./media-type.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { receive, receivedAt, type ReceivedFile } from "./receive.ts";
import { FileChunk, StoredFile, type FileRole, type FileSource } from "./stored-file.entity.ts";

const chunkSize = 1024 * 1024;
/** The media types of pictures that a book shows. */
export const pictureTypes = ["image/png", "image/jpeg", "image/gif"];

/** Keeps files in the database, in chunks, so that no file is ever whole in memory on its way. */
@Injectable()
export class FilesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly workers: WorkerPools,
  ) {}

  /** Stores bytes that are at hand; under a new id, unless it has one already. */
  async store(
    { id = randomUUID(), bytes, ...about }: FileToStore,
    manager: EntityManager = this.database.manager,
  ): Promise<StoredFile> {
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    const row = await this.insertRow(manager, { ...about, id, size: bytes.length, sha256 });
    const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    await this.insertChunks(manager, id, Readable.from(piecesOf(buffer)));
    return row;
  }

  /** Stores a picture after looking at its bytes; its name and claimed type are not trusted. */
  async storePicture(
    bookId: string | null,
    name: string,
    bytes: Uint8Array,
    manager?: EntityManager,
    id?: string,
  ): Promise<StoredFile> {
    const mediaType = await pictureType(name, bytes);
    return this.store({ ...(id ? { id } : {}), bookId, name, mediaType, role: "picture", bytes }, manager);
  }

  /** Stores a picture as it arrives, judged by its first bytes. */
  async storeSentPicture(bookId: string, name: string, content: Readable): Promise<StoredFile> {
    return receive(content, async (sent) => {
      const received = await this.shownPicture(name, sent);
      const mediaType = await pictureType(name, received.sample);
      const about = { bookId, name, mediaType, role: "picture" as const };
      return this.database.transaction((manager) => this.storeReceived(about, received, manager));
    });
  }

  /**
   * A picture as every reader shows it: one of another kind is drawn in its place on disk.
   * @throws Problem where it is of such a kind and cannot be read
   */
  async shownPicture(name: string, received: ReceivedFile): Promise<ReceivedFile> {
    const kind = pictureKind(received.sample);
    if (kind === null || kind === "shown") return received;
    const drawn = await this.workers.run("drawPicture", { bytes: await readFile(received.path) });
    if (!drawn)
      throw new Problem(
        415,
        "picture-type",
        `“${name}” cannot be read: it is damaged. Save it again, or as PNG, and bring it anew.`,
        "pictures",
      );
    await writeFile(received.path, drawn);
    return receivedAt(received.path);
  }

  /** Stores a file that waits on disk, under a new id. */
  storeReceived(about: AboutFile, received: ReceivedFile, manager: EntityManager): Promise<StoredFile> {
    return this.insert(manager, randomUUID(), about, received);
  }

  /**
   * Stores a companion file as it arrives. A name that the book has already gets a number.
   * @throws Problem `too-large` past the limit; then nothing is stored
   */
  async storeCompanion(
    bookId: string,
    name: string,
    content: Readable,
    source: FileSource | null = null,
  ): Promise<Companion> {
    return receive(content, async (received) => {
      const { mediaType, warning } = await judgeMediaType(received.sample, name);
      const file = await this.database.transaction(async (manager) => {
        const free = await this.freeName(manager, bookId, name);
        return this.insert(
          manager,
          randomUUID(),
          { bookId, name: free, mediaType, role: "companion", source },
          received,
        );
      });
      return { file, warning };
    });
  }

  /** Puts other content into a companion file. Its id and name stay, so every link goes on leading to it. */
  async replaceCompanion(
    bookId: string,
    id: string,
    content: Readable,
    source: FileSource | null = null,
  ): Promise<Companion> {
    return receive(content, async (received) => {
      const { name } = await this.find(bookId, id, undefined, "companion");
      const { mediaType, warning } = await judgeMediaType(received.sample, name);
      const file = await this.database.transaction(async (manager) => {
        const old = await this.find(bookId, id, manager, "companion");
        await manager.delete(StoredFile, { id });
        const about: AboutFile = { bookId, name: old.name, mediaType, role: "companion", source };
        return this.insert(manager, id, about, received);
      });
      return { file, warning };
    });
  }

  /**
   * Gives a companion file another name; its links know it by id and stay.
   * @throws Problem where another file of the book has the name
   */
  async renameCompanion(bookId: string, id: string, name: string): Promise<StoredFile> {
    const clean = name.replace(/[/\\]/g, "-").trim();
    return this.database.transaction(async (manager) => {
      const file = await this.find(bookId, id, manager, "companion");
      const taken = await manager.findOneBy(StoredFile, { bookId, role: "companion", name: clean });
      if (taken && taken.id !== id)
        throw new Problem(409, "name-taken", `The book has a file “${clean}” already.`, "name");
      await manager.update(StoredFile, { id }, { name: clean });
      return { ...file, name: clean };
    });
  }

  /**
   * Brings a companion file back that was deleted, under its id, so that links lead to it again.
   * @throws Problem where there is a file of that id
   */
  async restoreCompanion(bookId: string, id: string, name: string, content: Readable): Promise<Companion> {
    return receive(content, async (received) => {
      const { mediaType, warning } = await judgeMediaType(received.sample, name);
      const file = await this.database.transaction(async (manager) => {
        if (await manager.existsBy(StoredFile, { id }))
          throw new Problem(409, "file-there", "This file is there.");
        const free = await this.freeName(manager, bookId, name);
        return this.insert(manager, id, { bookId, name: free, mediaType, role: "companion" }, received);
      });
      return { file, warning };
    });
  }

  /** Takes a companion file out of the book. */
  async removeCompanion(bookId: string, id: string): Promise<void> {
    await this.database.transaction(async (manager) => {
      await this.find(bookId, id, manager, "companion");
      await manager.delete(StoredFile, { id });
    });
  }

  /** The companion files of a book, by name. */
  async companions(bookId: string): Promise<StoredFile[]> {
    return this.database.manager.find(StoredFile, {
      where: { bookId, role: "companion" },
      order: { name: "ASC" },
    });
  }

  /** What is known of a book's companion files, by their ids. */
  async companionFacts(bookId: string): Promise<Map<string, CompanionFile>> {
    return new Map(
      (await this.companions(bookId)).map(({ id, name, mediaType, size, places }) => [
        id,
        { name, mediaType, size, ...(places && !("isUnread" in places) ? { places } : {}) },
      ]),
    );
  }

  /**
   * A file of a book.
   * @throws Problem 404 where it has none of that id and kind
   */
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

  /** All bytes of a file at once. */
  async read(id: string): Promise<Buffer> {
    const chunks = await this.database.manager.find(FileChunk, {
      where: { fileId: id },
      order: { ordinal: "ASC" },
    });
    return Buffer.concat(chunks.map((chunk) => chunk.bytes));
  }

  /** The pictures of a book. */
  async pictures(bookId: string): Promise<StoredFile[]> {
    return this.database.manager.findBy(StoredFile, { bookId, role: "picture" });
  }

  /** The fonts of a book, by their families. */
  async fonts(bookId: string, manager: EntityManager = this.database.manager): Promise<StoredFont[]> {
    const files = await manager.findBy(StoredFile, { bookId, role: "font" });
    return files
      .filter((file): file is StoredFont => file.font !== null)
      .sort(({ font: a }, { font: b }) => order(a).localeCompare(order(b)));
  }

  private async insert(
    manager: EntityManager,
    id: string,
    about: AboutFile,
    { path, size, sha256 }: ReceivedFile,
  ): Promise<StoredFile> {
    const row = await this.insertRow(manager, { ...about, id, size, sha256 });
    await this.insertChunks(manager, id, createReadStream(path, { highWaterMark: chunkSize }));
    return row;
  }

  private async insertRow(
    manager: EntityManager,
    about: AboutFile & Pick<StoredFile, "id" | "size" | "sha256">,
  ): Promise<StoredFile> {
    const row = {
      font: null,
      source: null,
      places: null,
      pixels: null,
      hasLinksRead: false,
      ...about,
      name: about.name.slice(0, 255),
      isSound: null,
      changedAt: new Date(),
    };
    await manager.insert(StoredFile, row);
    return row;
  }

  private async insertChunks(manager: EntityManager, fileId: string, content: Readable): Promise<void> {
    let ordinal = 0;
    for await (const bytes of content as AsyncIterable<Buffer>)
      await manager.insert(FileChunk, { fileId, ordinal: ordinal++, bytes });
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

/** A font, of which something is known. */
export type StoredFont = StoredFile & { font: FaceFacts };

function order({ family, weight, stretch, italic }: FaceFacts): string {
  return `${family}\n${String(weight * 1000 + stretch).padStart(6, "0")}${italic ? 1 : 0}`;
}

type AboutFile = Pick<StoredFile, "bookId" | "name" | "mediaType" | "role"> &
  Partial<Pick<StoredFile, "font" | "source">>;

interface FileToStore extends AboutFile {
  id?: string;
  bytes: Uint8Array;
}

/**
 * The media type of a picture, judged by its bytes: its name and claimed type are not trusted.
 * @throws Problem where it is none that can be shown
 */
export async function pictureType(name: string, bytes: Uint8Array): Promise<string> {
  const { mediaType } = await judgeMediaType(bytes.subarray(0, sampleSize), name);
  if (!pictureTypes.includes(mediaType)) {
    throw new Problem(
      415,
      "picture-type",
      `“${name}” is not a picture that a book can show (PNG, JPEG, GIF, SVG, WebP or AVIF). Save it as one of these and bring it again.`,
      "pictures",
    );
  }
  return mediaType;
}

function* piecesOf(bytes: Buffer): Generator<Buffer> {
  for (let from = 0; from < bytes.length; from += chunkSize) yield bytes.subarray(from, from + chunkSize);
}

/** A companion file as it was stored, with what is odd about it. */
export interface Companion {
  file: StoredFile;
  warning: string | null;
}
