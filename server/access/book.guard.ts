import { createParamDecorator, Injectable, type CanActivate, type ExecutionContext } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { Request } from "express";
import { DataSource, IsNull, Not } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { Book } from "../books/book.entity.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { Job } from "../jobs/job.entity.ts";

/** What the guards before a route have found out. */
export type OpenedRequest = Request & { account?: Account; book?: Book; job?: Job };

/** The book that the route is about, which whoever asks may open. */
export const OpenBook = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<OpenedRequest>().book,
);

/** The same for what only books have, which have a manuscript. Finished files have none. */
export const OpenManuscript = createParamDecorator((_: unknown, context: ExecutionContext) => {
  const { book } = context.switchToHttp().getRequest<OpenedRequest>();
  if (book?.finished)
    throw new Problem(
      422,
      "finished-file",
      "This is a finished file: its links are changed on its pages, and it is saved as a new version of itself.",
    );
  return book;
});

/** The job that the route is about, of a book that whoever asks may open. */
export const OpenJob = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<OpenedRequest>().job,
);

/**
 * Opens the book, or the job of a book, that a route names, to those who may open it. It stands before every route
 * and reads what the route names, so none can be without it. Somebody else's answers as if there were none.
 */
@Injectable()
export class BookGuard implements CanActivate {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<OpenedRequest>();
    const { bookId, deletedBookId, jobId } = request.params as Record<string, string | undefined>;
    if (jobId !== undefined) {
      const job = await this.database.manager.findOneBy(Job, { id: jobId });
      if (!job || !(await this.mayOpen(request, job))) throw notFound("job");
      request.job = job;
    }
    if (bookId !== undefined) {
      const book = await this.open(request, bookId);
      if (!book) throw notFound("book");
      request.book = book;
    }
    if (deletedBookId !== undefined) {
      const book = request.account && (await this.deleted(request.account, deletedBookId));
      if (!book) throw notFound("deleted book");
      request.book = book;
    }
    return true;
  }

  /** A job is of a book; one whose book is not there yet is of whoever began it. */
  private async mayOpen(request: OpenedRequest, { bookId, accountId }: Job): Promise<boolean> {
    if (bookId === null) return request.account !== undefined && accountId === request.account.id;
    return (await this.open(request, bookId)) !== null;
  }

  private deleted({ id: accountId }: Account, id: string): Promise<Book | null> {
    const where = { id, accountId, deletedAt: Not(IsNull()) };
    return this.database.manager.findOne(Book, { where, withDeleted: true });
  }

  private open({ account }: OpenedRequest, id: string): Promise<Book | null> {
    return account ? openableBook(this.database, account.id, id) : Promise.resolve(null);
  }
}

/** The one place that says who may open a book. @returns null where the account may not, or there is none, or no more */
export function openableBook({ manager }: DataSource, accountId: string, id: string): Promise<Book | null> {
  return manager.findOneBy(Book, { id, accountId });
}
