import { request } from "node:http";
import { connect } from "node:net";
import { setTimeout as sleep } from "node:timers/promises";

/** Uploads, bodies and heads that come a byte at a time. */
export const slowClients = {
  name: "Slow uploads, slow bodies, slow heads",
  async run({ address, newAuthor, short }) {
    const { hostname, port } = new URL(address);
    const ends = [];
    const drips = [];
    const drip = (write) => drips.push(setInterval(write, 700));
    const authors = await Promise.all(Array.from({ length: 10 }, () => newAuthor()));
    for (const author of authors) {
      const bookId = await author.bringIn("# T\n\nLow water.\n");
      for (let i = 0; i < 3; i++) {
        const sending = request(`${address}/api/books/${bookId}/files`, {
          method: "POST",
          headers: {
            cookie: author.cookie,
            "content-type": "multipart/form-data; boundary=tide",
            "content-length": 1e6,
          },
        });
        sending.on("error", () => undefined);
        sending.write('--tide\r\ncontent-disposition: form-data; name="file"; filename="a.txt"\r\n\r\n');
        drip(() => sending.write("x"));
        ends.push(() => sending.destroy());
      }
    }
    for (let i = 0; i < 40; i++) {
      const socket = connect(Number(port), hostname);
      socket.on("error", () => undefined);
      const head = `POST /api/session HTTP/1.1\r\nHost: ${hostname}\r\nContent-Type: application/json\r\nContent-Length: 5000\r\n`;
      socket.write(i % 2 ? `${head}\r\n{` : head.slice(0, 20));
      drip(() => socket.write(i % 2 ? " " : "a"));
      ends.push(() => socket.destroy());
    }
    await sleep(short ? 8_000 : 60_000);
    for (const timer of drips) clearInterval(timer);
    for (const end of ends) end();
    return { did: `${ends.length} connections`, statuses: [] };
  },
};
