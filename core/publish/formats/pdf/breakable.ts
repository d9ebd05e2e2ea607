// Longer ones do not fit into a line of a small page, and nobody would hyphenate them.
const longSigns = /(?=\S*[^A-Za-z\s-])[!-~]{31,}/g;
const signPieces = /[^/.?&=_#%:;,-]{1,10}[/.?&=_#%:;,-]*|[/.?&=_#%:;,-]+/g;

/** Text in parts between which a line may end: addresses and other long signs would run over the margin. */
export function breakable(text: string): string[] {
  const here = "\0";
  return text.replace(longSigns, (signs) => signs.match(signPieces)!.join(here)).split(here);
}
