import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { PictureFile } from "@vennet/core/manuscript/book";
import { DataSource } from "typeorm";
import { FilesService } from "../files/files.service.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

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
    const damaged = new Set<string>();
    for (const { id, mediaType, isSound } of await this.files.pictures(bookId))
      if (!(isSound ?? (await this.judge(id, mediaType as PictureFile["mediaType"])))) damaged.add(id);
    return damaged;
  }

  private async judge(id: string, mediaType: PictureFile["mediaType"]): Promise<boolean> {
    const bytes = await this.files.read(id);
    const isSound = await this.workers.run("tryPicture", { id, mediaType, bytes });
    await this.database.manager.update(StoredFile, { id }, { isSound });
    return isSound;
  }
}
