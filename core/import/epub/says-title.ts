/** Whether words that stand one below the other say a title, numbers and signs before it aside where it has letters. */
export function saysTitle(words: readonly string[], title: string): boolean {
  const said = words.join(" ");
  const letters = (text: string): string =>
    text
      .normalize("NFKC")
      .replace(/[^\p{L}]+/gu, "")
      .toLowerCase();
  if (letters(title) !== "") return letters(said) === letters(title);
  const signs = (text: string): string => text.replace(/\s+/g, "");
  return signs(said) === signs(title);
}
