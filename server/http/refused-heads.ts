import type { IncomingMessage, Server, ServerResponse } from "node:http";
import { maxHeaderSize, STATUS_CODES } from "node:http";
import type { Socket } from "node:net";
import { Problem } from "../errors/problem.ts";

/** What Node cannot read as a request, by the codes of its errors. */
const problems: Readonly<Record<string, Problem>> = {
  HPE_HEADER_OVERFLOW: new Problem(
    431,
    "too-long",
    `What is asked for is told in more than ${maxHeaderSize.toLocaleString("en")} letters, which is more than Vennet takes. Ask for less, such as a part of the words.`,
  ),
  HPE_CHUNK_EXTENSIONS_OVERFLOW: new Problem(
    413,
    "too-large",
    "The body is sent in pieces that say too much.",
  ),
  ERR_HTTP_REQUEST_TIMEOUT: new Problem(408, "too-slow", "The request took too long to come."),
};
const unreadable = new Problem(400, "bad-request", "This is no request of HTTP.");

/** Answers in the one shape where a request cannot be read so far that a route could be found for it (RFC 9112, 3; RFC 6585, 5). */
export function tellRefusedHeads(server: Server): void {
  server.on("clientError", (error: NodeJS.ErrnoException, socket: Socket) => {
    const { _httpMessage: answering } = socket as Socket & { _httpMessage?: ServerResponse<IncomingMessage> };
    if (socket.writable && !answering?.headersSent) {
      const { status, code, message } = problems[error.code ?? ""] ?? unreadable;
      const body = JSON.stringify({ code, message });
      socket.write(
        `HTTP/1.1 ${status} ${STATUS_CODES[status]}\r\nContent-Type: application/json; charset=utf-8\r\n` +
          `Content-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
      );
    }
    socket.destroy(error);
  });
}
