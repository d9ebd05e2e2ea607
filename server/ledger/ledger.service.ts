import { Injectable, type OnApplicationBootstrap } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { nameDestination } from "@vennet/core/destination/destination";
import { inFileKey } from "@vennet/core/destination/kinds/file";
import { topOfBook } from "@vennet/core/manuscript/book-index";
import { stringify } from "csv-stringify/sync";
import { likeWords } from "../database/like-words.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { DataSource, In, IsNull, Like, Not } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { readPart } from "../chapters/read-part.ts";
import { KeptOrders } from "./kept-orders.ts";
import { LinkUse } from "./link-use.entity.ts";
import { ledgerRows } from "./ledger-rows.ts";
import { chapterOrder, linkCounts, stretchesOf } from "./reading-order.ts";
import { writeLedger } from "./write-ledger.ts";
import type {
  LedgerAnswer,
  LedgerColumn,
  LedgerFilter,
  LedgerGroupAnswer,
  LedgerQuery,
  LedgerRowAnswer,
} from "./ledger.dto.ts";
import { linksInUse, withOutcomes } from "./rows-in-use.ts";

const nameJoins = `LEFT JOIN stored_file f ON f.id = u.fileId AND f.bookId = u.bookId
  LEFT JOIN place p ON p.bookId = u.bookId AND p.placeId = u.placeId
  LEFT JOIN gone_place g ON g.bookId = u.bookId AND g.placeId = u.placeId`;
const named = `FROM ${linksInUse} ${withOutcomes} ${nameJoins}`;
/** Behind the name of a file the page or place in it, as its address has that. */
const inFile =
  "IF(u.destination LIKE '%#page=%', CONCAT(', page ', SUBSTRING_INDEX(u.destination, '#page=', -1)), IF(u.destination LIKE '%#%', CONCAT(', “', SUBSTRING_INDEX(u.destination, '#', -1), '”'), ''))";
/** What a destination is called: a companion file's name, a place's words, else itself. */
const nameOf = `COALESCE(CONCAT(f.name, ${inFile}), NULLIF(p.text, ''), IF(p.placeId IS NULL, CONCAT(g.name, ' (deleted)'), NULL), IF(u.placeId = '${topOfBook}', 'Top of the book', NULL), IF(u.fileId IS NULL, u.destination, 'a file that is gone'))`;

/** A destination within a companion file: the file, and the place. */
const intoFile = /^companion:([^#]+)#(.+)$/;

/** Texts of any length are sorted on the disk; so many letters of them, in memory. */
function sortable(text: string): string {
  return `LEFT(${text}, 100)`;
}

/** The keys of a page of an order, given as JSON. */
const pageOfOrder =
  "SELECT * FROM JSON_TABLE(?, '$[*]' COLUMNS (at FOR ORDINALITY, chapterId char(36) PATH '$.chapterId', ordinal int PATH '$.ordinal')) page";

const readingOrder = [...chapterOrder, "u.ordinal"];
const expressions: Record<LedgerColumn, string[]> = {
  position: readingOrder,
  text: [sortable("u.text")],
  kind: ["u.kind"],
  destination: [sortable(nameOf)],
  description: [sortable("COALESCE(u.description, '')")],
  chapter: chapterOrder,
  heading: ["u.heading"],
  state: [
    "FIELD(COALESCE(o.state, 'unchecked'), 'broken', 'unsure', 'moved', 'guarded', 'sound', 'unchecked')",
  ],
  checked: ["o.checkedAt"],
};

const csvHeads: Record<Exclude<LedgerColumn, "position">, [string, (row: LedgerRowAnswer) => string]> = {
  text: ["Link text", (row) => row.text],
  kind: ["Kind", (row) => row.kind],
  destination: ["Destination", (row) => row.destinationName],
  description: ["Description", (row) => row.description ?? ""],
  chapter: ["Chapter", (row) => row.chapter],
  heading: ["Heading", (row) => row.heading],
  state: ["State", (row) => row.state],
  checked: ["Last check", (row) => row.checkedAt ?? ""],
};

type Page = LedgerQuery & { offset: number; limit: number };

/** Rows as the database has them, and how many match in all. */
interface FoundRows {
  total: number;
  rows: (Omit<LedgerRowAnswer, "checkedAt"> & { checkedAt: Date | null })[];
}

/** Answers questions about all links of a book from the ledger's rows. */
@Injectable()
export class LedgerService implements OnApplicationBootstrap {
  private readonly orders: KeptOrders;

  constructor(@InjectDataSource() private readonly database: DataSource) {
    this.orders = new KeptOrders(database);
  }

  /** Chapters without derived rows (each has one place at least, its title) get theirs. */
  async onApplicationBootstrap(): Promise<void> {
    const bare: { id: string }[] = await this.database.query(
      "SELECT c.id FROM chapter c WHERE NOT EXISTS (SELECT 1 FROM place p WHERE p.chapterId = c.id)",
    );
    for (const { id } of bare) {
      await this.database.transaction(async (manager) => {
        const chapter = await manager.findOneByOrFail(Chapter, { id });
        const ledger = ledgerRows(readPart(chapter.document));
        await manager.update(Chapter, { id }, ledger.hashes);
        await writeLedger(manager, { ...chapter, linksHash: null, placesHash: null }, ledger);
      });
    }
  }

  /** Some rows of the ledger in the order that was asked for, and how many there are. */
  async rows(bookId: string, query: LedgerQuery): Promise<LedgerAnswer> {
    const page = { ...query, offset: query.offset ?? 0, limit: query.limit ?? 200 };
    const isFirst = query.sort === undefined || query.sort === "position";
    const found =
      isFirst && !isFiltered(query)
        ? await this.inReadingOrder(bookId, page)
        : ((await this.inKeptOrder(bookId, page)) ?? (await this.sorted(bookId, page)));
    return { total: found.total, rows: await this.told(found.rows) };
  }

  /** Some of all links, as they are read. */
  private async inReadingOrder(bookId: string, query: Page): Promise<FoundRows> {
    const { total, stretches } = await stretchesOf(this.database, bookId, query);
    if (stretches.length === 0) return { total, rows: [] };
    const within = stretches.map(() => "(u.chapterId = ? AND u.ordinal BETWEEN ? AND ?)").join(" OR ");
    const values = stretches.flatMap(({ chapterId, first, last }) => [chapterId, first, last]);
    const keys = `SELECT u.chapterId, u.ordinal FROM link_use u WHERE ${within}`;
    return { total, rows: await this.rowsOf(keys, values, orderOf(query)) };
  }

  /** Some of the links in an order that is kept, or shall be; null where it is not. */
  private async inKeptOrder(bookId: string, { offset, limit, ...asked }: Page): Promise<FoundRows | null> {
    const { sql, values } = keysOf(bookId, asked);
    const order = await this.orders.find(
      bookId,
      {
        name: JSON.stringify([sql, values]),
        followsState: Boolean(asked.state) || followsState(asked.sort),
        isCheap: isFiltered(asked),
      },
      () => this.database.query(sql, values),
    );
    if (!order) return null;
    const keys = JSON.stringify(order.page(offset, limit));
    return { total: order.total, rows: await this.rowsOf(pageOfOrder, [keys], "k.at") };
  }

  /** Some of the links that a filter matches, in any order. */
  private async sorted(bookId: string, query: Page): Promise<FoundRows> {
    const { sql, values } = keysOf(bookId, query);
    const [total, rows] = await Promise.all([
      this.count(bookId, query),
      this.rowsOf(`${sql} LIMIT ? OFFSET ?`, [...values, query.limit, query.offset], orderOf(query)),
    ]);
    return { total, rows };
  }

  /** How many links a filter matches. */
  private async count(bookId: string, filter: LedgerFilter): Promise<number> {
    if (!isFiltered(filter)) {
      const counts = await linkCounts(this.database, bookId, filter.chapter);
      return counts.reduce((sum, { count }) => sum + count, 0);
    }
    const { where, values } = conditions(bookId, filter);
    const rows: [{ total: string }] = await this.database.query(
      `SELECT COUNT(*) AS total ${fromFor(filter)} WHERE ${where}`,
      values,
    );
    return Number(rows[0].total);
  }

  /**
   * Rows by their keys, which are found first and alone, so that no text of thousands of rows is carried along; nor are all links
   * of a chapter read for some of them, which MariaDB thinks cheaper where it knows little of a table yet.
   */
  private rowsOf(keys: string, values: unknown[], by: string): Promise<FoundRows["rows"]> {
    return this.database.query(
      `SELECT STRAIGHT_JOIN u.linkId, u.chapterId, c.title AS chapter, u.heading, u.text, u.kind, u.destination,
         ${nameOf} AS destinationName, u.description, u.coverage, COALESCE(o.state, 'unchecked') AS state, o.checkedAt
       FROM (${keys}) k
       JOIN (${linksInUse}) ON u.chapterId = k.chapterId AND u.ordinal = k.ordinal ${withOutcomes} ${nameJoins}
       ORDER BY ${by}`,
      values,
    );
  }

  private async told(rows: FoundRows["rows"]): Promise<LedgerRowAnswer[]> {
    return (await this.withNamesInFiles(rows)).map((row) => ({
      ...row,
      checkedAt: row.checkedAt?.toISOString() ?? null,
    }));
  }

  /** The destinations of the links that a filter matches, with how many lead to each. */
  async groups(bookId: string, filter: LedgerFilter): Promise<LedgerGroupAnswer[]> {
    const { where, values } = conditions(bookId, filter);
    const rows: (Omit<LedgerGroupAnswer, "texts"> & { texts: string })[] = await this.database.query(
      `SELECT u.kind, u.destination, MAX(${nameOf}) AS destinationName,
         MAX(COALESCE(o.state, 'unchecked')) AS state, COUNT(*) AS count,
         GROUP_CONCAT(DISTINCT LEFT(u.text, 80) ORDER BY u.text SEPARATOR '\\n' LIMIT 5) AS texts
       ${named} WHERE ${where} GROUP BY u.kind, u.destination ORDER BY count DESC, destinationName`,
      values,
    );
    return (await this.withNamesInFiles(rows)).map((row) => ({
      ...row,
      count: Number(row.count),
      texts: row.texts.split("\n"),
    }));
  }

  /** Rows whose places within companion files are called as these files call them. */
  private async withNamesInFiles<R extends { destination: string; destinationName: string }>(
    rows: R[],
  ): Promise<R[]> {
    const within = rows.flatMap(({ destination }) => intoFile.exec(destination)?.[1] ?? []);
    if (within.length === 0) return rows;
    const stored = await this.database.manager.find(StoredFile, {
      where: { id: In([...new Set(within)]) },
      select: { id: true, name: true, places: true },
    });
    const files = new Map(stored.map(({ id, name }) => [id, name]));
    const inFiles = new Map(
      stored.flatMap(({ id, places }) =>
        places && "places" in places
          ? places.places.map(({ at, name }) => [inFileKey(id, at), name] as const)
          : [],
      ),
    );
    return rows.map((row) => {
      const [, file, at] = intoFile.exec(row.destination) ?? [];
      if (!file || !at || !files.has(file)) return row;
      const destination = { kind: "file" as const, file, at };
      return { ...row, destinationName: nameDestination(destination, { files, places: new Map(), inFiles }) };
    });
  }

  /** The names of all links that a filter matches, in reading order. */
  names(bookId: string, filter: LedgerFilter): Promise<{ chapterId: string; linkId: string }[]> {
    const { where, values } = conditions(bookId, filter);
    return this.database.query(
      `SELECT u.chapterId, u.linkId ${named} WHERE ${where} ORDER BY ${readingOrder.join(", ")}`,
      values,
    );
  }

  /** The rows that match, as CSV (RFC 4180) with a line of heads. */
  async csv(bookId: string, query: LedgerQuery & { columns?: string }): Promise<string> {
    const { sql, values } = keysOf(bookId, query);
    const rows = await this.told(await this.rowsOf(sql, values, orderOf(query)));
    const wanted = query.columns?.split(",") ?? Object.keys(csvHeads);
    const chosen = Object.entries(csvHeads).filter(([column]) => wanted.includes(column));
    return stringify(
      [chosen.map(([, [head]]) => head), ...rows.map((row) => chosen.map(([, [, read]]) => read(row)))],
      // A cell that begins like a formula is run by some programs; an apostrophe keeps it text (common practice).
      { escape_formulas: true },
    );
  }

  /** Links of other chapters that are called as links of this one. */
  async sameWordsBeside(
    bookId: string,
    chapterId: string,
  ): Promise<{ text: string; destination: string; destinationHash: string | null }[]> {
    const own: { text: string }[] = await this.database.query(
      "SELECT DISTINCT text FROM link_use WHERE bookId = ? AND chapterId = ? AND coverage <> 'reference' AND TRIM(text) <> ''",
      [bookId, chapterId],
    );
    if (own.length === 0) return [];
    // A list that is given is sorted and searched; what a SELECT within found would be gone through for each link.
    return this.database.query(
      `SELECT DISTINCT u.text, u.destination, u.destinationHash FROM ${linksInUse}
       WHERE u.bookId = ? AND u.chapterId <> ? AND u.coverage <> 'reference' AND u.text IN (?)`,
      [bookId, chapterId, own.map(({ text }) => text)],
    );
  }

  /** How many links of other chapters lead to addresses of each of the two schemes of web pages. */
  async schemesBeside(bookId: string, chapterId: string): Promise<{ http: number; https: number }> {
    const [row]: { http: string | null; https: string | null }[] = await this.database.query(
      `SELECT SUM(u.destination LIKE 'http:%') AS http, SUM(u.destination LIKE 'https:%') AS https FROM ${linksInUse}
       WHERE u.bookId = ? AND u.chapterId <> ? AND u.kind = 'web'`,
      [bookId, chapterId],
    );
    return { http: Number(row!.http ?? 0), https: Number(row!.https ?? 0) };
  }

  /** The ids of the companion files to whose pages or places links lead. */
  async filesLedInto(bookId: string): Promise<Set<string>> {
    const rows = await this.database.manager.find(LinkUse, {
      where: { bookId, fileId: Not(IsNull()), destination: Like("companion:%#%") },
      select: { fileId: true },
    });
    return new Set(rows.map(({ fileId }) => fileId!));
  }

  /** How many links lead to each companion file, by its id. */
  async usesOfFiles(bookId: string): Promise<Map<string, number>> {
    const rows: { file: string; uses: string }[] = await this.database.query(
      `SELECT u.fileId AS file, COUNT(*) AS uses
       FROM ${linksInUse}
       WHERE u.bookId = ? AND u.fileId IS NOT NULL GROUP BY u.fileId`,
      [bookId],
    );
    return new Map(rows.map(({ file, uses }) => [file, Number(uses)]));
  }
}

/** Where links are found and sorted; names and states are joined where they matter. */
function fromFor({ search, state }: LedgerFilter, sort?: LedgerColumn): string {
  const asksNames = Boolean(search?.trim()) || sort === "destination";
  return `FROM ${linksInUse} ${state || followsState(sort) ? withOutcomes : ""} ${asksNames ? nameJoins : ""}`;
}

/** Whether an order is another when links were checked. */
function followsState(sort: LedgerColumn | undefined): boolean {
  return sort === "state" || sort === "checked";
}

function orderOf({ sort = "position", direction = "up" }: LedgerQuery): string {
  const way = direction === "down" ? "DESC" : "ASC";
  return [...expressions[sort].map((part) => `${part} ${way}`), ...readingOrder].join(", ");
}

/** Asks for the keys of the links that a filter matches, in an order. */
function keysOf(bookId: string, query: LedgerQuery): { sql: string; values: unknown[] } {
  const { where, values } = conditions(bookId, query);
  return {
    sql: `SELECT u.chapterId, u.ordinal ${fromFor(query, query.sort)} WHERE ${where} ORDER BY ${orderOf(query)}`,
    values,
  };
}

/** Whether not all links of a book, or of one of its chapters, are asked for. */
function isFiltered({ search, kind, state, destination, described }: LedgerFilter): boolean {
  return Boolean(search?.trim() || kind || state || destination || described);
}

function conditions(bookId: string, filter: LedgerFilter): { where: string; values: unknown[] } {
  const parts = ["u.bookId = ?"];
  const values: unknown[] = [bookId];
  const add = (part: string, ...given: unknown[]): void => {
    parts.push(part);
    values.push(...given);
  };
  for (const word of filter.search?.trim().split(/\s+/).filter(Boolean) ?? []) {
    const like = likeWords(word);
    add(
      `(u.text LIKE ? OR ${nameOf} LIKE ? OR u.description LIKE ? OR c.title LIKE ? OR u.heading LIKE ?)`,
      ...Array.from({ length: 5 }, () => like),
    );
  }
  if (filter.kind) add("u.kind = ?", filter.kind);
  if (filter.state) add("COALESCE(o.state, 'unchecked') = ? AND u.destinationHash IS NOT NULL", filter.state);
  if (filter.chapter) add("u.chapterId = ?", filter.chapter);
  if (filter.destination) add("u.destination = BINARY ?", filter.destination);
  if (filter.described)
    add(filter.described === "yes" ? "u.description <> ''" : "COALESCE(u.description, '') = ''");
  return { where: parts.join(" AND "), values };
}
