/** Words as they are compared: in lower case, each run of blanks as one, and none at the ends. */
export function foldedWords(text: string): string {
  const isPlain = !/^\s|\s$|\s\s|[^\S ]/.test(text);
  return (isPlain ? text : text.replace(/\s+/g, " ").trim()).toLowerCase();
}
