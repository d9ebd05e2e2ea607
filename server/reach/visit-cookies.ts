import { CookieJar } from "tough-cookie";

/**
 * What hosts have a browser keep in the course of one visit, from the first question to the page at the end of its
 * redirects (RFC 6265). Many lead whoever brings no cookie away to get one, and back.
 */
export class VisitCookies {
  /** Most visits need none. */
  private jar: CookieJar | null = null;

  /** What is sent with a question; undefined where there is nothing to send. */
  for(address: string): string | undefined {
    return this.jar?.getCookieStringSync(address) || undefined;
  }

  /** Keeps what an answer sets, as far as it may. @returns whether the next question is another for it */
  keep(address: string, set: readonly string[]): boolean {
    if (set.length === 0) return false;
    // As browsers do, it takes a name without a value, too.
    const jar = (this.jar ??= new CookieJar(undefined, { looseMode: true }));
    const before = all(jar);
    for (const cookie of set) jar.setCookieSync(cookie, address, { ignoreError: true });
    return all(jar) !== before;
  }
}

function all(jar: CookieJar): string {
  const { cookies = [] } = jar.serializeSync() ?? {};
  return JSON.stringify(cookies.map(({ domain, path, key, value }) => [domain, path, key, value]));
}
