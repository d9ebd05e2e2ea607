import type { Side } from "@vennet/core/import/new-version/merge-version";
import type { WebPicture } from "@vennet/core/import/web-pictures";
import type { Job } from "../jobs/job.entity.ts";
import type { WebPictureHere } from "./read-manuscript.ts";

/** All that an import needs; what was sent waits in the database. */
export interface ImportInput {
  accountId: string;
  authorName: string;
  /** The ids of the files that were sent: the manuscript, and what belongs to it. */
  manuscript: string;
  beside: string[];
  fileName: string;
  title: string | null;
  baseAddress: string | null;
  /** Whether the author looks at what arrived before anything is kept. */
  review: boolean;
  /** Whether it is a new version of what the book has. */
  isVersion: boolean;
  /** Of a version that was looked at: the book as it was then, and which text is taken at each clash. */
  seen: string | null;
  choices: Side[];
  /** The pictures that are to be fetched from the web, and what became of those that were. */
  fetch: WebPicture[];
  fetched: Record<string, WebPictureHere>;
}

/** What an import needs; one that was begun by an older server asks for no pictures. */
export function inputOf({ input }: Pick<Job, "input">): ImportInput {
  const given = input as unknown as ImportInput & Partial<ImportInput>;
  return { ...given, fetch: given.fetch ?? [], fetched: given.fetched ?? {} };
}
