/** What is wrong with an answer to a request that nobody would send; null where it is one of ours. */
export function judgeAnswer({ status, body, text, error }) {
  if (status === 0) return `no answer: ${error}`;
  // The database away, or the disk full.
  if (status >= 500 && status !== 503 && status !== 507) return `${status}`;
  if (status >= 400 && !(body?.code && body?.message))
    return `${status} without code and message: ${text.slice(0, 100)}`;
  return null;
}
