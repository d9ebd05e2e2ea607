import { LevelFormat, type ILevelsOptions } from "docx";

/** How far in a list item, or an entry one level deeper, begins; in twips, a twentieth of a point. */
export const indent = 360;
/** A text document has nine levels of lists (ECMA-376-1, 17.9.6). */
export const deepestList = 8;

/** The numberings of a document: one of its own for each list, so that each begins at its own number. */
export class Numberings {
  readonly config: { reference: string; levels: ILevelsOptions[] }[] = [];

  /** A new numbering from a number on. */
  from(start: number): string {
    return this.add((level) => ({ format: LevelFormat.DECIMAL, text: `%${level + 1}.`, start }));
  }

  /** A new numbering by dots. */
  bullets(): string {
    return this.add(() => ({ format: LevelFormat.BULLET, text: "•" }));
  }

  private add(of: (level: number) => Omit<ILevelsOptions, "level">): string {
    const reference = `list-${this.config.length + 1}`;
    const levels = Array.from({ length: deepestList + 1 }, (_, level) => ({
      level,
      ...of(level),
      style: { paragraph: { indent: { left: indent * (level + 2), hanging: indent } } },
    }));
    this.config.push({ reference, levels });
    return reference;
  }
}
