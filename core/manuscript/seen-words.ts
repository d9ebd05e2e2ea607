const seen = /[^\s\p{Cc}\p{Default_Ignorable_Code_Point}]/u;

/** Whether anything of a text is seen: not where it is blanks, joiners and other signs without a shape (Unicode, DerivedCoreProperties). */
export function isSeen(text: string): boolean {
  return seen.test(text);
}
