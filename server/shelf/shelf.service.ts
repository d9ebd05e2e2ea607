import { Readable } from "node:stream";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { wayToPlace } from "@vennet/core/finished/way-to-place";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import { DataSource } from "typeorm";
import { openableBook } from "../access/book.guard.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import type { Book } from "../books/book.entity.ts";
import { likeWords } from "../database/like-words.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { FilePlacesService } from "../files/file-places.service.ts";
import type { StoredFile } from "../files/stored-file.entity.ts";
import { Place } from "../ledger/place.entity.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { newestFile, type NewestFile } from "./newest-file.ts";
import {
  namedKinds,
  type FromShelfAnswer,
  type LeadToShelfRequest,
  type ShelfPlaceAnswer,
} from "./shelf.dto.ts";
import { placesInUse } from "../ledger/rows-in-use.ts";

const mostFound = 8;

/** What is to be led to, in words, and how it is called. */
interface Wanted {
  book: Book;
  place: { id: string; text: string } | null;
}

/**
 * Leads links of one publication into the others of its Shelf: by a file of these that travels with it as a companion,
 * and is known to come from there.
 */
@Injectable()
export class ShelfService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly filePlaces: FilePlacesService,
    private readonly quota: QuotaService,
    private readonly workers: WorkerPools,
  ) {}

  /** Other publications of a book’s Shelf, and places of theirs, in whose names words stand. */
  async search({ id, accountId }: Book, words: string): Promise<ShelfPlaceAnswer[]> {
    const like = likeWords(words);
    const books: Omit<ShelfPlaceAnswer, "name" | "placeId" | "kind">[] = await this.database.query(
      `SELECT id AS bookId, title FROM book
         WHERE accountId = ? AND id <> ? AND deletedAt IS NULL AND title LIKE ? ORDER BY modifiedAt DESC LIMIT ?`,
      [accountId, id, like, mostFound],
    );
    const places: ShelfPlaceAnswer[] = await this.database.query(
      `SELECT b.id AS bookId, b.title, p.placeId, p.text AS name, p.kind
         FROM book b JOIN (${placesInUse}) ON p.bookId = b.id
         WHERE b.accountId = ? AND b.id <> ? AND b.deletedAt IS NULL AND p.kind IN (?) AND p.text LIKE ?
         ORDER BY CHAR_LENGTH(p.text), b.modifiedAt DESC LIMIT ?`,
      [accountId, id, namedKinds, like, mostFound],
    );
    return [...books.map((book) => ({ ...book, placeId: null, name: "", kind: null })), ...places];
  }

  /**
   * Where a link of a book leads that is to lead into another one. The file of that is brought in where it does not travel
   * with the book yet; an older one that lacks the place is put in the newest’s place.
   * @throws Problem where there is no such publication, no file of it, or no such place in its newest file
   */
  async leadTo(book: Book, request: LeadToShelfRequest): Promise<{ file: StoredFile; at: string | null }> {
    const wanted = await this.wanted(book, request);
    const there = (await this.files.companions(book.id)).find(
      ({ source }) => source?.bookId === request.bookId,
    );
    if (there) {
      const [known] = await this.filePlaces.of(book.id, new Set([there.id]));
      const way = known && wayIn(known.places, wanted);
      if (way !== undefined) return { file: there, at: way };
    }
    const newest = await this.newestOf(wanted.book, there?.mediaType);
    const { bytes, places } = await this.read(newest);
    const at = wayIn(places, wanted);
    if (at === undefined)
      throw new Problem(
        422,
        "place-not-in-file",
        `“${wanted.book.title}” has gone out without “${wanted.place!.text}”. Export it again, then lead there.`,
      );
    return { file: await this.take(book, newest, bytes, wanted.book, there?.id ?? null), at };
  }

  /** Puts the newest file of the publication from which a companion file came in its place. */
  async renew(book: Book, fileId: string): Promise<StoredFile> {
    const file = await this.files.find(book.id, fileId, undefined, "companion");
    if (!file.source)
      throw new Problem(422, "not-from-shelf", "This file is of no publication on your Shelf.");
    const from = await this.other(book, file.source.bookId);
    const newest = await this.newestOf(from, file.mediaType);
    return this.take(book, newest, (await this.read(newest)).bytes, from, fileId);
  }

  /** Which companion files of a book came from its Shelf, and whether they are older than what went out there last. */
  async from(book: Book): Promise<FromShelfAnswer[]> {
    const found: FromShelfAnswer[] = [];
    for (const { id, source, mediaType } of await this.files.companions(book.id)) {
      const from = source && (await this.find(book, source.bookId));
      if (!source || !from) continue;
      const newest = await newestFile(this.database, from, mediaType);
      const isOlder = newest !== null && newest.file.sha256 !== source.sha256;
      found.push({ fileId: id, bookId: from.id, title: from.title, isOlder });
    }
    return found;
  }

  private async wanted(book: Book, { bookId, placeId }: LeadToShelfRequest): Promise<Wanted> {
    const other = await this.other(book, bookId);
    if (placeId === null) return { book: other, place: null };
    const place = await this.database.manager.findOneBy(Place, { bookId, placeId });
    if (!place) throw notFound("place");
    return { book: other, place: { id: placeId, text: place.text } };
  }

  private async other(book: Book, id: string): Promise<Book> {
    const other = await this.find(book, id);
    if (!other) throw notFound("book");
    return other;
  }

  private find({ id: own, accountId }: Book, id: string): Promise<Book | null> {
    return id === own ? Promise.resolve(null) : openableBook(this.database, accountId, id);
  }

  private async newestOf(book: Book, mediaType: string | undefined): Promise<NewestFile> {
    const newest = await newestFile(this.database, book, mediaType);
    if (newest) return newest;
    throw new Problem(
      422,
      "never-exported",
      `“${book.title}” has no PDF or e-book yet to which readers could go. Export it, then lead there.`,
    );
  }

  private async read({
    file,
    mediaType,
    isFolder,
  }: NewestFile): Promise<{ bytes: Uint8Array; places: FilePlaces }> {
    return this.workers.run("shelfFile", { bytes: await this.files.read(file.id), mediaType, isFolder });
  }

  private async take(
    book: Book,
    { file: { sha256 }, name }: NewestFile,
    bytes: Uint8Array,
    from: Book,
    fileId: string | null,
  ): Promise<StoredFile> {
    await this.quota.assertBytes(book.accountId, bytes.length);
    const content = Readable.from([Buffer.from(bytes)]);
    const source = { bookId: from.id, sha256 };
    const { file } = await (fileId === null
      ? this.files.storeCompanion(book.id, name, content, source)
      : this.files.replaceCompanion(book.id, fileId, content, source));
    return file;
  }
}

/** What an address has behind its `#`; null for the whole file, undefined where it has no such place. */
function wayIn(places: FilePlaces, { place }: Wanted): string | null | undefined {
  return place ? (wayToPlace(places, place.id, place.text) ?? undefined) : null;
}
