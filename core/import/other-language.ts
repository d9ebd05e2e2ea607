/** Whether words are in another language than the text's: programs note the author's own at each turn. */
export function isOtherLanguage(tag: string, main: string | null): boolean {
  const languageIn = (whole: string): string => whole.split("-")[0]!.toLowerCase();
  return main !== null && !/^(x-none|zxx)$/i.test(tag) && languageIn(tag) !== languageIn(main);
}
