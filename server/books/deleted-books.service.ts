import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, IsNull, LessThan, Not } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { Book } from "./book.entity.ts";
import type { DeletedBookAnswer } from "./books.dto.ts";

const day = 24 * 60 * 60_000;
const keptFor = 30 * day;
const lookPause = 60 * 60_000;

/** Books that were deleted. They can be brought back for thirty days; then they go by themselves. */
@Injectable()
export class DeletedBooksService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(DeletedBooksService.name);
  private timer: NodeJS.Timeout | undefined;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly quota: QuotaService,
    private readonly jobs: JobsService,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.removeOld(new Date()).catch((error: unknown) =>
        this.logger.error(`Deleted books of long ago are still there: ${String(error)}`),
      );
    }, lookPause);
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }

  /** An account's deleted books, the last deleted first. */
  async list({ id: accountId }: Account): Promise<DeletedBookAnswer[]> {
    const books = await this.database.manager.find(Book, {
      where: { accountId, deletedAt: Not(IsNull()) },
      order: { deletedAt: "DESC" },
      withDeleted: true,
    });
    return books.map(({ id, title, author, deletedAt }) => ({
      id,
      title,
      author,
      deletedAt: deletedAt!.toISOString(),
      keptUntil: new Date(deletedAt!.getTime() + keptFor).toISOString(),
    }));
  }

  /** Takes a book off the Shelf, and cancels what goes on for it. Whoever deleted it meanwhile too has deleted it. */
  async add({ id }: Book): Promise<void> {
    await this.database.manager.update(Book, { id, deletedAt: IsNull() }, { deletedAt: new Date() });
    await this.jobs.cancelAllOf(id);
  }

  /** @throws Problem `quota` where the account has as many other books as it may */
  async restore({ id, accountId }: Book): Promise<Book> {
    await this.quota.assertBook(accountId);
    await this.database.manager.update(Book, { id }, { deletedAt: null });
    return this.database.manager.findOneByOrFail(Book, { id });
  }

  /** Deletes a book for good, with all that belongs to it. */
  async remove({ id }: Pick<Book, "id">): Promise<void> {
    // It may have been brought back a moment ago.
    await this.database.manager.delete(Book, { id, deletedAt: Not(IsNull()) });
  }

  /** Deletes for good what was deleted long ago. */
  async removeOld(now: Date): Promise<void> {
    const old = await this.database.manager.find(Book, {
      where: { deletedAt: LessThan(new Date(now.getTime() - keptFor)) },
      select: { id: true },
      withDeleted: true,
    });
    // One at a time: with a book go all its rows.
    for (const book of old) await this.remove(book);
  }
}
