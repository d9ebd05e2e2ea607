import type { DataSourceOptions } from "typeorm";
import { Account } from "../accounts/account.entity.ts";
import { Session } from "../accounts/session.entity.ts";
import { Book } from "../books/book.entity.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { LinkUse } from "../chapters/link-use.entity.ts";
import { Export } from "../exports/export.entity.ts";
import { FileChunk, StoredFile } from "../files/stored-file.entity.ts";
import { Job } from "../jobs/job.entity.ts";
import { ReachOutcome } from "../reach/reach-outcome.entity.ts";
import { FirstTables1764000000000 } from "./migrations/1764000000000-first-tables.ts";

/** How the server reaches its database. Migrations run at start; the schema is never synchronised. */
export function databaseOptions(url: string): DataSourceOptions {
  return {
    type: "mariadb",
    url,
    charset: "utf8mb4_unicode_520_ci",
    timezone: "Z",
    entities: [Account, Session, Book, Chapter, LinkUse, StoredFile, FileChunk, Job, ReachOutcome, Export],
    migrations: [FirstTables1764000000000],
    migrationsRun: true,
    synchronize: false,
    logging: false,
  };
}
