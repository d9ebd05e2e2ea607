import { Injectable, Logger } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import { DataSource } from "typeorm";
import { columns } from "../database/columns.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { FilesService } from "./files.service.ts";
import { StoredFile, type UnreadPlaces } from "./stored-file.entity.ts";

/** Kinds of files in which there are places, by their media types. */
const withPlaces = new Set(["application/pdf", "text/html", "application/xhtml+xml", "application/epub+zip"]);
const unread: UnreadPlaces = { isUnread: true };

/** Says to which pages and places of companion files links can lead. Each file is read once, and anew when it is replaced. */
@Injectable()
export class FilePlacesService {
  private readonly log = new Logger(FilePlacesService.name);

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly ledger: LedgerService,
    private readonly workers: WorkerPools,
  ) {}

  /**
   * The companion files of a book in which links can lead to pages or places, with these.
   * @param only the ids of those that are asked for; all where it is left out
   */
  async of(bookId: string, only?: ReadonlySet<string>): Promise<{ file: StoredFile; places: FilePlaces }[]> {
    const found: { file: StoredFile; places: FilePlaces }[] = [];
    for (const file of await this.files.companions(bookId)) {
      if (!withPlaces.has(file.mediaType) || only?.has(file.id) === false) continue;
      const places = file.places ?? (await this.read(file));
      if (!("isUnread" in places)) found.push({ file, places });
    }
    return found;
  }

  /** Those of them into which links lead, which are read first where that was not done yet. */
  async ledInto(bookId: string): ReturnType<FilePlacesService["of"]> {
    const files = await this.ledger.filesLedInto(bookId);
    return files.size > 0 ? this.of(bookId, files) : [];
  }

  private async read({ id, name, mediaType, sha256 }: StoredFile): Promise<FilePlaces | UnreadPlaces> {
    let places: FilePlaces | UnreadPlaces;
    try {
      const bytes = await this.files.read(id);
      places = (await this.workers.run("placesInFile", { bytes, mediaType })) ?? unread;
    } catch (error) {
      // A file that readers’ programs may open all the same is no reason to stop for.
      this.log.warn(`The places in “${name}” cannot be read: ${(error as Error).message}`);
      places = unread;
    }
    // Another file may have been put in its place meanwhile.
    await this.database.manager.update(StoredFile, { id, sha256 }, columns<StoredFile>({ places }));
    return places;
  }
}
