import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { exportOptions } from "@vennet/core/publish/formats/formats";
import { DataSource } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { Book } from "../books/book.entity.ts";
import { ManuscriptsService } from "../books/manuscripts.service.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { FilesService } from "../files/files.service.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { exportLane } from "../workers/long-texts.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { plainName } from "./plain-name.ts";
import type { ZipEntry } from "./zip-stream.ts";

const folders = {
  picture: "pictures",
  companion: "files",
  font: "fonts",
  export: "exports",
  finished: "finished files",
};

/** Gives an author all that their account holds, to keep or to take elsewhere. */
@Injectable()
export class EverythingService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly manuscripts: ManuscriptsService,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
  ) {}

  /** A folder for each book: its text as Markdown and whole as JSON, its pictures, companion files, fonts and exported files. */
  async *of({ id: accountId, name, email }: Account): AsyncGenerator<ZipEntry> {
    const { manager } = this.database;
    yield json("account.json", { name, email });
    const books = await manager.find(Book, { where: { accountId }, order: { createdAt: "ASC" } });
    for (const [i, book] of books.entries()) {
      const folder = `${i + 1} ${plainName(book.title)}`;
      const chapters = await manager.find(Chapter, {
        where: { bookId: book.id },
        order: { position: "ASC" },
      });
      yield { path: `${folder}/book.json`, content: wholeText(book, chapters) };
      if (!book.finished) yield await this.markdown(book, folder);
      yield* this.filesOf(book.id, folder);
    }
  }

  private async markdown(book: Book, folder: string): Promise<ZipEntry> {
    const manuscript = await this.manuscripts.of(book);
    const options = exportOptions({ format: "markdown" });
    const taken = await this.workers.run("preflight", { book: manuscript, options });
    const pictures = await this.manuscripts.picturesOf(book.id, taken.pictures);
    const fileBytes = await this.manuscripts.fileBytesOf(taken.companions);
    const { bytes, isFolder } = await this.workers.run(exportLane(manuscript.chapters), {
      book: { ...manuscript, pictures, fileBytes },
      options,
      name: "text.md",
      lastPages: null,
    });
    return { path: `${folder}/text.${isFolder ? "zip" : "md"}`, content: [bytes] };
  }

  private async *filesOf(bookId: string, folder: string): AsyncGenerator<ZipEntry> {
    const stored = await this.database.manager.find(StoredFile, {
      where: { bookId },
      order: { changedAt: "ASC" },
    });
    const taken = new Set<string>();
    for (const { id, name, role } of stored) {
      if (role === "upload") continue;
      let path = `${folder}/${folders[role]}/${plainName(name)}`;
      // Pictures may have one name, and exports of one book mostly do; to some systems capitals are no difference.
      if (taken.has(path.toLowerCase())) path = `${folder}/${folders[role]}/${id} ${plainName(name)}`;
      taken.add(path.toLowerCase());
      yield { path, content: this.files.stream(id) };
    }
  }
}

/** A book with its chapters as JSON, whose documents are JSON already. */
function* wholeText(book: Book, chapters: readonly Chapter[]): Generator<Uint8Array> {
  yield Buffer.from(`${JSON.stringify(book).slice(0, -1)},"chapters":[`);
  for (const [i, { document, ...about }] of chapters.entries())
    yield Buffer.from(`${i > 0 ? "," : ""}${JSON.stringify(about).slice(0, -1)},"document":${document}}`);
  yield Buffer.from("]}");
}

function json(path: string, value: unknown): ZipEntry {
  return { path, content: [Buffer.from(JSON.stringify(value, null, 2))] };
}
