import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { PictureFile } from "@vennet/core/manuscript/book";
import pLimit from "p-limit";
import { DataSource } from "typeorm";
import { FilesService } from "../files/files.service.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { WorkerLimitError } from "../workers/process-limits.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

/** So many pictures are in memory at once. */
const atOnce = 2;

/** Knows which pictures cannot be shown; each is tried once, when it is first asked about. */
@Injectable()
export class DamagedPicturesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
  ) {}

  /** The ids of a book's pictures that cannot be decoded. */
  async of(bookId: string): Promise<Set<string>> {
    const inTurn = pLimit(atOnce);
    const judged = (await this.files.pictures(bookId)).map(({ id, mediaType, isSound }) =>
      inTurn(async () => ({
        id,
        isSound: isSound ?? (await this.judge(id, mediaType as PictureFile["mediaType"])),
      })),
    );
    return new Set((await Promise.all(judged)).flatMap(({ id, isSound }) => (isSound ? [] : [id])));
  }

  private async judge(id: string, mediaType: PictureFile["mediaType"]): Promise<boolean> {
    const bytes = await this.files.read(id);
    const isSound = await this.workers.run("tryPicture", { id, mediaType, bytes }).catch((error: unknown) => {
      // What takes more than a picture may, no page can show.
      if (error instanceof WorkerLimitError) return false;
      throw error;
    });
    await this.database.manager.update(StoredFile, { id }, { isSound });
    return isSound;
  }
}
