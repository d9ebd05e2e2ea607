import { Agent, buildConnector } from "undici";

// Asks a list of addresses with undici and nothing else, each with HEAD and, where a page answers, with GET:
// what a link check cannot be faster than.
process.once("message", async ({ addresses, concurrency, port }) => {
  const connect = buildConnector({});
  const agent = new Agent({
    connect: (options, callback) =>
      connect({ ...options, hostname: "127.0.0.1", port: String(port) }, callback),
  });
  const queue = [...addresses];
  let questions = 0;
  const ask = async (url, method) => {
    questions++;
    const answer = await agent.request({ origin: url.origin, path: url.pathname, method });
    await answer.body.dump();
    return answer.statusCode;
  };
  const started = performance.now();
  const lane = async () => {
    for (let address = queue.pop(); address; address = queue.pop()) {
      const url = new URL(address);
      await ask(url, "HEAD");
      await ask(url, "GET");
    }
  };
  await Promise.all(Array.from({ length: concurrency }, lane));
  process.send({ ms: performance.now() - started, questions });
});
