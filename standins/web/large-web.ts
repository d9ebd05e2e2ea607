import { page, status, type Host } from "./answering.ts";

/** One host of a generated web, with what the seed drew for it. */
export interface LargeHost {
  name: string;
  /** Paths of its pages. */
  pages: string[];
  /** Milliseconds from question to answer. */
  latencyMs: number;
  /** The share of its pages that are gone, and of those that fail with a fault of the server. */
  goneShare: number;
  faultShare: number;
  /** The most questions within a second that it answers, or null for any number. */
  limit: number | null;
}

export interface LargeWeb {
  seed: number;
  hosts: number;
  pages: number;
}

/** As the issue of the checks asks for it: ten thousand pages on three hundred hosts. */
export const defaultLargeWeb: LargeWeb = { seed: 7, hosts: 300, pages: 10_000 };

/**
 * A web drawn from a seed. A few hosts have many pages and most have few; the same seed, sizes and index give the
 * same host wherever it is drawn, so the server and whoever asks it need not agree on anything else.
 */
export function largeWeb(web: LargeWeb): LargeHost[] {
  const weights = Array.from({ length: web.hosts }, (_, i) => drawer(web.seed, i).weight);
  const sum = weights.reduce((a, b) => a + b, 0);
  let left = web.pages;
  return weights.map((weight, i) => {
    const isLast = i === web.hosts - 1;
    const count = isLast ? left : Math.min(left, Math.max(1, Math.round((weight / sum) * web.pages)));
    left -= count;
    const { latencyMs, goneShare, faultShare, limit } = drawer(web.seed, i);
    return {
      name: `h${i}-s${web.seed}.large.test`,
      pages: Array.from({ length: count }, (_, n) => `/page/${n}`),
      latencyMs,
      goneShare,
      faultShare,
      limit,
    };
  });
}

/** The host of this name as a server, if the name is one of a generated web. */
export function largeHost(name: string): Host | null {
  const drawn = /^h(\d+)-s(\d+)\.large\.test$/.exec(name);
  if (!drawn) return null;
  const known = served.get(name);
  if (known) return known;
  const host = serve(drawer(Number(drawn[2]), Number(drawn[1])), Number(drawn[2]) * 1009 + Number(drawn[1]));
  served.set(name, host);
  return host;
}

const served = new Map<string, Host>();

function serve({ latencyMs, goneShare, faultShare, limit }: ReturnType<typeof drawer>, salt: number): Host {
  let times: number[] = [];
  const shown = page("A generated page");
  return {
    certificate: "none",
    otherwise: (request, response, url) => {
      const now = Date.now();
      if (limit !== null) {
        times = times.filter((time) => now - time < 1000);
        if (times.length >= limit)
          return status(429, "Too many.", { "retry-after": "1" })(request, response, url);
        times.push(now);
      }
      const luck = random(salt + Number(/^\/page\/(\d+)$/.exec(url.pathname)?.[1] ?? -1) * 7919)();
      const answer =
        !url.pathname.startsWith("/page/") || luck < goneShare
          ? status(404, "No such page.")
          : luck < goneShare + faultShare
            ? status(500, "A fault.")
            : shown;
      setTimeout(() => answer(request, response, url), latencyMs);
    },
  };
}

function drawer(seed: number, index: number) {
  const draw = random(seed * 100_003 + index);
  return {
    weight: 0.2 + draw() ** 4 * 6,
    latencyMs: Math.round(2 + draw() ** 3 * 60),
    goneShare: draw() * 0.06,
    faultShare: draw() < 0.1 ? 0.02 : 0,
    limit: draw() < 0.05 ? 40 : null,
  };
}

/** A small generator of pseudo-random numbers from 0 to 1 (mulberry32, public domain). */
function random(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}
