import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { pictureSize } from "@vennet/core/manuscript/picture-size";
import { DataSource } from "typeorm";
import { columns } from "../database/columns.ts";
import { FilesService } from "./files.service.ts";
import { StoredFile } from "./stored-file.entity.ts";

/** Says how many pixels the pictures of a book have. The bytes of each are read once. */
@Injectable()
export class PictureSizesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
  ) {}

  /** Every picture's width and height in pixels, by its id. */
  async of(bookId: string): Promise<Map<string, { width: number; height: number }>> {
    const sizes = new Map<string, { width: number; height: number }>();
    for (const { id, pixels } of await this.files.pictures(bookId))
      sizes.set(id, pixels ?? (await this.read(id)));
    return sizes;
  }

  private async read(id: string): Promise<{ width: number; height: number }> {
    const pixels = pictureSize({ bytes: await this.files.read(id) });
    await this.database.manager.update(StoredFile, { id }, columns<StoredFile>({ pixels }));
    return pixels;
  }
}
