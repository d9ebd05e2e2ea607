import { Agent, buildConnector } from "undici";

// Asks a list of addresses with undici and nothing else: what a link check cannot be faster than.
process.once("message", async ({ addresses, concurrency, port }) => {
  const connect = buildConnector({});
  const agent = new Agent({
    connect: (options, callback) =>
      connect({ ...options, hostname: "127.0.0.1", port: String(port) }, callback),
  });
  const queue = [...addresses];
  const started = performance.now();
  const lane = async () => {
    for (let address = queue.pop(); address; address = queue.pop()) {
      const url = new URL(address);
      const answer = await agent.request({ origin: url.origin, path: url.pathname, method: "HEAD" });
      if (answer.statusCode !== 200) throw new Error(`${address} answered ${answer.statusCode}`);
      await answer.body.dump();
    }
  };
  await Promise.all(Array.from({ length: concurrency }, lane));
  process.send({ ms: performance.now() - started });
});
