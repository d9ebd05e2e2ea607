/** A language as the typesetter takes it. */
export interface TypesetLanguage {
  /** A code of ISO 639. */
  lang: string;
  /** A code of ISO 3166-1, of two letters; null where the tag has none of these. */
  region: string | null;
}

/** Takes language and region out of a tag (RFC 5646, 2.1: extensions and private use begin with a single letter). */
export function typesetLanguage(tag: string): TypesetLanguage {
  const [lang = "", ...rest] = tag.split("-");
  const end = rest.findIndex((part) => part.length === 1);
  const own = end === -1 ? rest : rest.slice(0, end);
  return {
    lang: lang.toLowerCase(),
    region: own.find((part) => /^[a-z]{2}$/i.test(part))?.toUpperCase() ?? null,
  };
}
