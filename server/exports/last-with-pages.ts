import { exportFormats, formats } from "@vennet/core/publish/formats/formats";
import { In, type DataSource } from "typeorm";
import { Export } from "./export.entity.ts";

const paged = exportFormats.filter((format) => formats[format].hasPages);

/** A book's last exported file that has pages, with the page of each place; null where there is none. */
export function lastWithPages(database: DataSource, bookId: string): Promise<Export | null> {
  return database.manager.findOne(Export, {
    where: { bookId, format: In(paged) },
    order: { createdAt: "DESC" },
    select: { id: true, fileId: true, fileName: true, pageOfPlace: true },
  });
}
