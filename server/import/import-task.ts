import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { deriveChapter, type DerivedChapter } from "../chapters/derived-chapter.ts";
import { readManuscript, type ManuscriptToRead, type ReadArrival } from "./read-manuscript.ts";

/** A manuscript as it is kept. */
export interface ArrivedManuscript extends ReadArrival {
  chapters: DerivedChapter[];
}

/** Reads a manuscript file into chapters, with what is to be kept of each. */
export async function run(manuscript: ManuscriptToRead): Promise<ArrivedManuscript> {
  const { chapters, ...read } = await readManuscript(manuscript);
  return { ...read, chapters: chapters.map((doc) => deriveChapter(readChapter(writeChapter(doc)))) };
}
