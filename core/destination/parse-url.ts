/**
 * An address as the URL standard reads it; null where it is none, or where its host holds a blank or another sign that
 * some browsers write as `%20` in place of refusing it. In place of `URL.canParse`,
 * which Node.js 20 answers wrongly for letters between U+0080 and U+00FF once it is asked often.
 */
export function parseUrl(address: string, base?: string): URL | null {
  try {
    const url = new URL(address, base);
    return /^https?:$/.test(url.protocol) && url.hostname.includes("%") ? null : url;
  } catch (error) {
    if ((error as Error).name === "TypeError") return null;
    throw error;
  }
}
