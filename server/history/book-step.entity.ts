import type { LinkDifference } from "@vennet/core/manuscript/versions";
import { Column, Entity, Index, PrimaryColumn } from "typeorm";
import { BelongsTo } from "../database/belongs-to.ts";
import { longTextColumn } from "../database/json-column.ts";

export const stepKinds = [
  "mentions",
  "codes",
  "addresses",
  "retarget",
  "remove",
  "describe",
  "words",
  "change",
  "mend",
  "anchor",
  "new-version",
] as const;
export type StepKind = (typeof stepKinds)[number];

/** What a step did to one chapter. */
export interface ChapterChange {
  chapterId: string;
  /** The revisions before and after it. The one before is kept as a version. */
  before: number;
  after: number;
  links: LinkDifference[];
  /** Whether the step made the chapter, or took it out of the book; left out where it changed its text. */
  became?: "new" | "gone";
}

/** One action over many links of a book, which is undone as one. */
@Entity("book_step")
@Index("IDX_book_step_book", ["bookId", "createdAt"])
export class BookStep {
  @PrimaryColumn("char", { length: 36 })
  id: string;

  @BelongsTo("Book", "FK_book_step_book")
  @Column("char", { length: 36 })
  bookId: string;

  /** Who did it; null where nobody was signed in, as in what runs by the calendar. */
  @Column("char", { length: 36, nullable: true })
  accountId: string | null;

  @Column("varchar", { length: 20 })
  kind: StepKind;

  @Column("text")
  summary: string;

  /** Each {@link ChapterChange}, as JSON. */
  @Column(longTextColumn())
  changes: string;

  @Column("datetime", { precision: 3 })
  createdAt: Date;

  @Column("datetime", { precision: 3, nullable: true })
  undoneAt: Date | null;
}
