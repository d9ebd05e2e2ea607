const kept = 20_000;

/** A judgement of hosts that remembers the ones that it has judged: a book names few of them, and often. */
export function byHost<T>(judge: (host: string) => T): (host: string) => T {
  const judged = new Map<string, T>();
  return (host) => {
    const known = judged.get(host);
    if (known !== undefined || judged.has(host)) return known as T;
    if (judged.size >= kept) judged.clear();
    const verdict = judge(host);
    judged.set(host, verdict);
    return verdict;
  };
}
