/** Parameters that only tell a server where a visitor came from (common practice, from memory). */
const trackingParameter =
  /^(utm_\w+|fbclid|gclid|gclsrc|dclid|msclkid|yclid|twclid|igshid|mc_cid|mc_eid|_hsenc|_hsmi|vero_id|wt_mc|pk_campaign|pk_kwd)$/i;

/**
 * The same web address without tracking parameters, with the names of those that were left out; null
 * where it has none. The other parameters stay as they are written.
 */
export function withoutTracking(address: string): { address: string; removed: string[] } | null {
  const url = new URL(address);
  if (url.search === "") return null;
  const removed: string[] = [];
  const kept = url.search
    .slice(1)
    .split("&")
    .filter((field) => {
      const name = field.split("=", 1)[0]!;
      if (!trackingParameter.test(name)) return true;
      removed.push(name);
      return false;
    });
  if (removed.length === 0) return null;
  url.search = kept.join("&");
  return { address: url.href, removed };
}
