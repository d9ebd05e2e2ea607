import type { Node } from "prosemirror-model";
import { hastToManuscript } from "./hast-to-manuscript/hast-to-manuscript.ts";
import type { LeftOut } from "./left-out.ts";
import type { BroughtFile, EnclosedFile } from "./manuscript-reader.ts";
import { readerFor } from "./readers.ts";

export interface ImportOptions {
  /** The title of the chapter for text before the first level-1 heading. */
  fallbackTitle: string;
  /** An absolute web address from which relative links start; null keeps them as files. */
  baseAddress: string | null;
  /** The id of the stored file for a picture's source, or null where it was not brought beside the manuscript. */
  pictureFor: (source: string) => string | null;
}

/** A file that came inside a manuscript, with the id by which its links and pictures know it. */
export interface ArrivedFile extends BroughtFile {
  id: string;
}

/** A manuscript as it arrived. */
export interface ImportedManuscript {
  /** The words of the first level-1 heading, or the fallback title. */
  title: string;
  /** One valid document a chapter. */
  chapters: Node[];
  pictures: ArrivedFile[];
  companions: ArrivedFile[];
  leftOut: LeftOut[];
}

/**
 * Brings a manuscript file in: finds the reader for what is in it, reads it into a tree, and makes chapters of that.
 * @throws ImportError where no reader knows the file, or the one that does cannot read it
 */
export async function importManuscript(
  file: BroughtFile,
  options: ImportOptions,
): Promise<ImportedManuscript> {
  const { tree, pictures, companions, leftOut, whereOf } = await readerFor(file).read(file);
  const arrivedPictures = new ArrivedFiles(pictures);
  const arrivedCompanions = new ArrivedFiles(companions);
  const made = hastToManuscript(tree, {
    ...options,
    whereOf,
    pictureFor: (source) => arrivedPictures.idFor(source) ?? options.pictureFor(source),
    companionFor: (href) => arrivedCompanions.idFor(href),
  });
  return {
    ...made,
    pictures: arrivedPictures.used(),
    companions: arrivedCompanions.used(),
    leftOut: [...leftOut, ...made.leftOut],
  };
}

/** Enclosed files, of which those that are referred to get an id. */
class ArrivedFiles {
  private readonly ids = new Map<string, string>();

  constructor(private readonly files: readonly EnclosedFile[]) {}

  idFor(reference: string): string | null {
    if (!this.files.some((file) => file.reference === reference)) return null;
    let id = this.ids.get(reference);
    if (!id) this.ids.set(reference, (id = crypto.randomUUID()));
    return id;
  }

  used(): ArrivedFile[] {
    return this.files.flatMap(({ reference, name, bytes }) => {
      const id = this.ids.get(reference);
      return id ? [{ id, name, bytes }] : [];
    });
  }
}
