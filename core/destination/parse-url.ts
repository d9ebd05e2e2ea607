/**
 * An address as the URL standard reads it; null where it is none. In place of `URL.canParse`, which Node.js 20 answers
 * wrongly for letters between U+0080 and U+00FF once it is asked often.
 */
export function parseUrl(address: string, base?: string): URL | null {
  try {
    return new URL(address, base);
  } catch (error) {
    if ((error as Error).name === "TypeError") return null;
    throw error;
  }
}
