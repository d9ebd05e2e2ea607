import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { ProofNumbers } from "@vennet/core/proof/compare";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import type { ExportOptions } from "@vennet/core/publish/formats/formats";
import { DataSource } from "typeorm";
import { actingAccount } from "../access/acting-account.ts";
import type { Book } from "../books/book.entity.ts";
import { columns } from "../database/columns.ts";
import { FilesService } from "../files/files.service.ts";
import { Export } from "./export.entity.ts";

/** A file that went out, with what came of reading it back. */
export interface FileToKeep {
  /** The publication as it was, and how often its parts had been saved. */
  row: Book;
  revision: number;
  options: ExportOptions;
  fileName: string;
  mediaType: string;
  bytes: Uint8Array;
  warnings: ExportWarning[];
  numbers: ProofNumbers;
  /** The whole proof as JSON. */
  proof: string;
  pageOfPlace: Record<string, string> | null;
  /** When it was begun, in milliseconds. */
  begun: number;
}

/** Keeps files that went out with their proofs. */
@Injectable()
export class KeptExports {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
  ) {}

  async keep({
    row,
    options,
    fileName,
    mediaType,
    bytes,
    numbers,
    begun,
    ...told
  }: FileToKeep): Promise<void> {
    await this.database.transaction(async (manager) => {
      const about = { bookId: row.id, name: fileName, mediaType, role: "export" as const };
      const file = await this.files.store({ ...about, bytes }, manager);
      await manager.insert(
        Export,
        columns<Export>({
          id: randomUUID(),
          bookId: row.id,
          accountId: actingAccount(),
          format: options.format,
          options,
          tookMs: Date.now() - begun,
          textAt: row.modifiedAt,
          fileId: file.id,
          fileName,
          size: file.size,
          ...told,
          ...numbers,
          walk: null,
          createdAt: new Date(),
        }),
      );
    });
  }
}
