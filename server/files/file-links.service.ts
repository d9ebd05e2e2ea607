import { createHash } from "node:crypto";
import { Injectable, Logger } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { isDeadEnd } from "@vennet/core/checks/file-dead-ends";
import type { KnownAnswer } from "@vennet/core/checks/finding";
import type { CompanionFile } from "@vennet/core/manuscript/book";
import { DataSource, In } from "typeorm";
import { WorkerPools } from "../workers/worker-pools.ts";
import { FileLink } from "./file-link.entity.ts";
import { FilesService } from "./files.service.ts";
import { StoredFile } from "./stored-file.entity.ts";

/** Kinds of files that have links of their own, by their media types. */
const withLinks = ["application/pdf", "application/epub+zip"];

/** Says where the links of companion files lead. Each file is read once, and anew when it is replaced. */
@Injectable()
export class FileLinksService {
  private readonly log = new Logger(FileLinksService.name);

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
  ) {}

  /** Reads what has not been read yet of a book's companion files. */
  async readAll(bookId: string): Promise<void> {
    const unread = await this.database.manager.findBy(StoredFile, {
      bookId,
      role: "companion",
      mediaType: In(withLinks),
      hasLinksRead: false,
    });
    for (const file of unread) await this.read(bookId, file);
  }

  /** The links of each companion file that lead its readers nowhere, as far as that is known, by its id. */
  async deadEnds(bookId: string): Promise<Map<string, NonNullable<CompanionFile["deadEnds"]>>> {
    const rows: { fileId: string; destination: string; page: number; state: KnownAnswer["state"] | null }[] =
      await this.database.query(
        `SELECT l.fileId, l.destination, l.page, o.state FROM file_link l
         LEFT JOIN reach_outcome o ON o.bookId = l.bookId AND o.destinationHash = l.askedHash
         WHERE l.bookId = ? ORDER BY l.fileId, l.ordinal`,
        [bookId],
      );
    const found = new Map<string, { to: string; page: number }[]>();
    for (const { fileId, destination, page, state } of rows) {
      if (!isDeadEnd(destination, state)) continue;
      const known = found.get(fileId);
      if (known) known.push({ to: destination, page });
      else found.set(fileId, [{ to: destination, page }]);
    }
    return found;
  }

  private async read(bookId: string, { id, name, mediaType, sha256 }: StoredFile): Promise<void> {
    let links: Awaited<ReturnType<typeof this.linksOf>> = [];
    try {
      links = await this.linksOf(id, mediaType);
    } catch (error) {
      // A file that readers’ programs may open all the same is no reason to stop for.
      this.log.warn(`The links in “${name}” cannot be read: ${(error as Error).message}`);
    }
    await this.database.transaction(async (manager) => {
      // Another file may have been put in its place meanwhile, or another server may have read it.
      const isRead = await manager.update(
        StoredFile,
        { id, sha256, hasLinksRead: false },
        { hasLinksRead: true },
      );
      if (!isRead.affected || links.length === 0) return;
      await manager.insert(
        FileLink,
        links.map((link, ordinal) => ({
          ...link,
          fileId: id,
          bookId,
          ordinal,
          askedHash:
            link.askedAddress === null ? null : createHash("sha256").update(link.askedAddress).digest("hex"),
        })),
      );
    });
  }

  private async linksOf(id: string, mediaType: string) {
    return this.workers.run("linksInFile", { bytes: await this.files.read(id), mediaType });
  }
}
