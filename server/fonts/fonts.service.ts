import { readFile } from "node:fs/promises";
import type { Readable } from "node:stream";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { FaceFacts } from "@vennet/core/manuscript/book-fonts";
import { DataSource } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { FilesService, type StoredFont } from "../files/files.service.ts";
import { receive } from "../files/receive.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

const mostBytes = 30 * 1024 * 1024;
const mostFonts = 24;

/** Keeps the fonts that authors bring for their books, each tried before it is taken. */
@Injectable()
export class FontsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
  ) {}

  /**
   * Takes a font as it arrives. The same face of the same family is replaced.
   * @throws Problem where it is too large, or the book has too many; CodedError `font` where it cannot be used
   */
  async store(bookId: string, name: string, content: Readable): Promise<StoredFont> {
    return receive(content, async (received) => {
      if (received.size > mostBytes)
        throw new Problem(
          413,
          "too-large",
          `“${name}” is larger than 30 MB, which is more than a font may be.`,
        );
      const bytes = await readFile(received.path);
      const { mediaType, ...font } = await this.workers.run("readFont", { name, bytes });
      return this.database.transaction(async (manager) => {
        const there = await this.files.fonts(bookId, manager);
        const same = there.find((one) => isSameFace(one.font, font));
        if (same) await manager.delete(StoredFile, { id: same.id });
        else if (there.length >= mostFonts)
          throw new Problem(
            409,
            "many-fonts",
            `The book has ${mostFonts} fonts, which is as many as it may have. Take one out that it does not need.`,
          );
        const about = { bookId, name, mediaType, role: "font" as const, font };
        return { ...(await this.files.storeReceived(about, received, manager)), font };
      });
    });
  }

  /** Takes a font out of a book. What was set in it is set in the usual letters, unless it is brought again. */
  async remove(bookId: string, id: string): Promise<void> {
    await this.files.find(bookId, id, undefined, "font");
    await this.database.manager.delete(StoredFile, { id });
  }
}

function isSameFace(a: FaceFacts, b: FaceFacts): boolean {
  return (["family", "weight", "stretch", "italic"] as const).every((key) => a[key] === b[key]);
}
