import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";

/** What an account has, and may have. */
export interface Usage {
  books: number;
  mostBooks: number;
  /** Of its pictures, companion files, and exported files, those of deleted books among them. */
  bytes: number;
  mostBytes: number;
}

/** Keeps accounts within what each of them may have. */
@Injectable()
export class QuotaService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly settings: Settings,
  ) {}

  async usage(accountId: string): Promise<Usage> {
    const [row]: { books: string; bytes: string | null }[] = await this.database.query(
      `SELECT (SELECT COUNT(*) FROM book WHERE accountId = ? AND deletedAt IS NULL) AS books,
         (SELECT SUM(f.size) FROM stored_file f JOIN book b ON b.id = f.bookId WHERE b.accountId = ?) AS bytes`,
      [accountId, accountId],
    );
    const { quotaBooks, quotaBytes } = this.settings;
    return {
      books: Number(row!.books),
      mostBooks: quotaBooks,
      bytes: Number(row!.bytes ?? 0),
      mostBytes: quotaBytes,
    };
  }

  /** @throws Problem `quota` where the account has as many books as it may */
  async assertBook(accountId: string): Promise<void> {
    const { books, mostBooks } = await this.usage(accountId);
    if (books < mostBooks) return;
    throw new Problem(
      403,
      "quota",
      `You have ${books} books, which is as many as an account may have here. Delete one that you need no more.`,
    );
  }

  /** @throws Problem `quota` where so many bytes more are too many */
  async assertBytes(accountId: string, more: number): Promise<void> {
    const { bytes, mostBytes } = await this.usage(accountId);
    if (bytes + more <= mostBytes) return;
    throw new Problem(
      403,
      "quota",
      `Your files have ${inMegabytes(bytes)} of the ${inMegabytes(mostBytes)} that an account may have here. Delete exported files or companion files that you need no more, or deleted books for good.`,
    );
  }
}

function inMegabytes(bytes: number): string {
  return `${Math.ceil(bytes / 1024 / 1024).toLocaleString("en")} MB`;
}
