import type { DataSource } from "typeorm";

/** A link by its chapter, and its place among the links of that. */
export interface LinkKey {
  chapterId: string;
  ordinal: number;
}

/** Links in an order, of which any page is read at once. */
export class LinkOrder {
  readonly total: number;
  private readonly chapterIds: string[];
  private readonly chapters: Uint32Array;
  private readonly ordinals: Uint32Array;

  /** @param keys in the order that is kept */
  constructor(keys: readonly LinkKey[]) {
    const at = new Map<string, number>();
    this.total = keys.length;
    this.chapters = Uint32Array.from(keys, ({ chapterId }) => {
      const known = at.get(chapterId) ?? at.size;
      at.set(chapterId, known);
      return known;
    });
    this.ordinals = Uint32Array.from(keys, ({ ordinal }) => ordinal);
    this.chapterIds = [...at.keys()];
  }

  /** The links of a page; fewer at the end. */
  page(offset: number, limit: number): LinkKey[] {
    return [...this.ordinals.subarray(offset, offset + limit)].map((ordinal, i) => ({
      chapterId: this.chapterIds[this.chapters[offset + i]!]!,
      ordinal,
    }));
  }
}

interface Kept {
  stamp: string;
  /** Null where it was asked for once. */
  order: Promise<LinkOrder> | null;
  total: number;
}

/** What an order is of. */
export interface AskedOrder {
  /** Sorted by what, which way, which links. */
  name: string;
  /** Whether it is another when links were checked. */
  followsState: boolean;
  /** Whether reading it whole costs no more than reading a page of it; one that does is read whole when it is asked for again. */
  isCheap: boolean;
}

/** So many links are kept in all orders of all books, eight bytes each; and so many orders, short ones too. */
const mostLinks = 4_000_000;
const mostOrders = 1_000;

/**
 * Whole orders of ledgers, so that whoever goes through a long one has it sorted once and not for each page. One is used as long as
 * the book is as it was when it was sorted, whichever server changed it; where it follows what is known of destinations, as long as
 * that is so too.
 */
export class KeptOrders {
  /** What was used last comes last. */
  private readonly kept = new Map<string, Kept>();

  constructor(private readonly database: DataSource) {}

  /**
   * An order of a book's links.
   * @param read reads it whole
   * @returns null where a page of it had better be read alone
   */
  async find(
    bookId: string,
    { name, followsState, isCheap }: AskedOrder,
    read: () => Promise<LinkKey[]>,
  ): Promise<LinkOrder | null> {
    // Before it is sorted: what changes meanwhile makes it old, and nothing that is old is taken for new.
    const stamps = [this.stampOf(bookId), ...(followsState ? [this.stampOfStates(bookId)] : [])];
    const stamp = (await Promise.all(stamps)).join(" ");
    const key = `${bookId} ${name}`;
    const before = this.kept.get(key);
    this.kept.delete(key);
    const isAgain = before?.stamp === stamp;
    const now: Kept = isAgain ? before : { stamp, order: null, total: 0 };
    this.kept.set(key, now);
    this.dropOldest();
    if (isAgain || isCheap) now.order ??= this.whole(key, now, read);
    return now.order;
  }

  private async whole(key: string, kept: Kept, read: () => Promise<LinkKey[]>): Promise<LinkOrder> {
    try {
      const order = new LinkOrder(await read());
      kept.total = order.total;
      this.dropOldest();
      return order;
    } catch (error) {
      if (this.kept.get(key) === kept) this.kept.delete(key);
      throw error;
    }
  }

  private dropOldest(): void {
    let total = [...this.kept.values()].reduce((sum, one) => sum + one.total, 0);
    for (const [key, one] of this.kept) {
      if (total <= mostLinks && this.kept.size <= mostOrders) return;
      this.kept.delete(key);
      total -= one.total;
    }
  }

  /** Says of a book's texts, their order, and the names of its files when they are no longer the same. */
  private async stampOf(bookId: string): Promise<string> {
    const [row] = await this.database.query<{ stamp: string }[]>(
      `SELECT CONCAT_WS(' ', b.modifiedAt,
         (SELECT CONCAT(COUNT(*), ' ', SUM(c.revision)) FROM chapter c WHERE c.bookId = b.id AND c.deletedAt IS NULL),
         (SELECT CONCAT(COUNT(*), ' ', SUM(CRC32(CONCAT(f.id, f.name)))) FROM stored_file f WHERE f.bookId = b.id AND f.role = 'companion')
       ) AS stamp FROM book b WHERE b.id = ?`,
      [bookId],
    );
    // A book that was deleted a moment ago has no links either.
    return row?.stamp ?? "";
  }

  /** Says of what is known of a book's destinations when it is no longer the same. */
  private async stampOfStates(bookId: string): Promise<string> {
    const [row] = await this.database.query<[{ stamp: string }]>(
      `SELECT CONCAT(COUNT(*), ' ', COALESCE(SUM(CRC32(CONCAT(o.destinationHash, o.state, o.checkedAt))), 0)) AS stamp
         FROM reach_outcome o FORCE INDEX (IDX_reach_outcome_known) WHERE o.bookId = ?`,
      [bookId],
    );
    return row.stamp;
  }
}
