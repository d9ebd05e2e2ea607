import { Readable } from "node:stream";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { percentDecoded } from "@vennet/core/destination/percent-decoded";
import { DataSource } from "typeorm";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { KeptCopy } from "../reach/kept-copy.entity.ts";
import { CopiedPages } from "./copied-pages.ts";
import { linksInUse, withOutcomes } from "../ledger/rows-in-use.ts";

interface Page {
  askedHash: string;
  address: string;
  /** The copy that there is already. */
  fileId: string | null;
}

const longestName = 80;
const problemsTold = 3;

/** Keeps copies of linked pages as companion files, on their author's word. */
@Injectable()
export class KeptService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly jobs: JobsService,
    private readonly files: FilesService,
    private readonly pages: CopiedPages,
    private readonly quota: QuotaService,
  ) {
    jobs.define("keep-copies", { work: (job, report, signal) => this.keep(job, report, signal) });
  }

  /** Begins to keep copies of some pages, or of all; or gives the job that is at it. */
  async begin(bookId: string, addresses?: readonly string[]): Promise<Job> {
    const underWay = await this.jobs.unfinished(bookId, "keep-copies");
    if (underWay) return underWay;
    if ((await this.pagesOf(bookId, addresses)).length === 0)
      throw new Problem(
        422,
        "nothing-to-keep",
        "There is no page left of which a copy could be kept.",
        "addresses",
      );
    return this.jobs.enqueue(bookId, "keep-copies", addresses ? { addresses } : {});
  }

  private async keep(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const { addresses } = job.input as { addresses?: string[] };
    const { id: bookId, accountId } = await this.database.manager.findOneByOrFail(Book, { id: job.bookId! });
    // What a stop has interrupted goes on with what is not kept yet.
    const pages = await this.pagesOf(bookId, addresses, job.createdAt);
    const allowed = new Map<string, Promise<(address: string) => boolean>>();
    const problems: string[] = [];
    let kept = 0;
    for (const [done, page] of pages.entries()) {
      signal.throwIfAborted();
      report({ done, total: pages.length, message: page.address });
      const problem = await this.one(page, bookId, accountId, allowed, signal);
      if (problem === null) kept++;
      else problems.push(`${page.address}: ${problem}`);
    }
    report({ done: pages.length, total: pages.length, message: told(kept, problems) });
    return told(kept, problems);
  }

  /** @returns why there is no copy; null where there is one */
  private async one(
    { askedHash, address, fileId }: Page,
    bookId: string,
    accountId: string,
    allowed: Map<string, Promise<(address: string) => boolean>>,
    signal: AbortSignal,
  ): Promise<string | null> {
    const keptAt = new Date();
    const copy = await this.pages.take(address, bookId, keptAt, allowed, signal);
    if ("problem" in copy) return copy.problem;
    await this.quota.assertBytes(accountId, copy.bytes.length);
    const content = Readable.from([Buffer.from(copy.bytes)]);
    // A copy that was kept before has its links, and stays the same file.
    const { file } = fileId
      ? await this.files.replaceCompanion(bookId, fileId, content)
      : await this.files.storeCompanion(bookId, nameOf(copy.address, copy.mediaType), content);
    await this.database.manager.upsert(
      KeptCopy,
      { bookId, askedHash, fileId: file.id, keptAt },
      { conflictPaths: ["bookId", "askedHash"] },
    );
    return null;
  }

  /**
   * The pages of which copies are wanted, each once: those that are named, or all that are well and have none.
   * @param since those that were kept since then are left out
   */
  private pagesOf(bookId: string, addresses?: readonly string[], since = new Date()): Promise<Page[]> {
    return this.database.query(
      `SELECT u.askedHash, MIN(u.askedAddress) AS address, MIN(k.fileId) AS fileId FROM ${linksInUse}
       ${withOutcomes}
       LEFT JOIN kept_copy k ON k.bookId = u.bookId AND k.askedHash = u.askedHash
       WHERE u.bookId = ? AND u.kind = 'web' AND u.askedHash IS NOT NULL AND (k.keptAt IS NULL OR k.keptAt < ?)
         ${addresses ? "AND u.destination IN (?)" : "AND k.askedHash IS NULL AND COALESCE(o.state, 'sound') IN ('sound', 'moved')"}
       GROUP BY u.askedHash ORDER BY MIN(u.askedAddress)`,
      [bookId, since, ...(addresses ? [addresses] : [])],
    );
  }
}

function told(kept: number, problems: readonly string[]): string {
  const what = kept === 1 ? "1 copy kept" : `${kept} copies kept`;
  if (problems.length === 0) return `${what}.`;
  const more = problems.length > problemsTold ? `; and ${problems.length - problemsTold} more` : "";
  return `${what}. Not kept: ${problems.slice(0, problemsTold).join("; ")}${more}.`;
}

/** What a copy is called: its host and the last of its path. */
function nameOf(address: string, mediaType: string): string {
  const { hostname, pathname } = new URL(address);
  const last = pathname.split("/").filter(Boolean).at(-1) ?? "";
  const [, stem = last, ending = ""] = /^(.*?)(\.\w{1,5})?$/s.exec(last) ?? [];
  const name = [hostname.replace(/^www\./, ""), percentDecoded(stem)].filter(Boolean).join(" ");
  const clean = name
    .replace(/[^\p{L}\p{N} .-]+/gu, " ")
    .slice(0, longestName)
    .trim();
  return `${clean} (kept copy)${mediaType === "text/html" ? ".html" : ending}`;
}
