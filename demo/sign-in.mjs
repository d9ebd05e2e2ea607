/**
 * Signs in to the demo account, as any author's script would.
 * @param {string} server the server's address
 * @returns {Promise<Function>} what calls the interface for books: with a method, a path, and a body
 */
export async function signInToDemo(server) {
  const signedIn = await fetch(`${server}/api/session/demo`, { method: "POST" });
  const cookie = signedIn.headers.get("set-cookie").split(";")[0];
  return async (method, path, body) => {
    const isForm = body instanceof FormData;
    const answer = await fetch(`${server}/api${path.startsWith("/jobs/") ? "" : "/books"}${path}`, {
      method,
      headers: { cookie, ...(body && !isForm ? { "content-type": "application/json" } : {}) },
      ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
    });
    if (answer.headers.get("content-type")?.startsWith("text/event-stream")) return answer.text();
    const content = await answer.json();
    if (!answer.ok) throw new Error(`The demo book: ${content.message}`);
    return content;
  };
}
