import type { IncomingMessage } from "node:http";
import { escapeHtml, htmlPage, type Answer } from "../answers.ts";

/** Who may open a shared file. */
export type Audience = { kind: "owner" } | { kind: "group"; name: string } | { kind: "anyone" };

export interface SharedFile {
  name: string;
  folder: string;
  /** The last part of its share address. */
  share: string;
  size: number;
  audience: Audience;
}

/** What a tester can make happen to a shared file. */
export type DriveEvent = "moved" | "deleted" | "narrowed";

const wardens: Audience = { kind: "group", name: "Causeway wardens" };
const anyone: Audience = { kind: "anyone" };

function firstFiles(): SharedFile[] {
  const plans = ["R1", "R2", "R3", "R4", "R5", "R6"].map((code, i) => ({
    name: `${code} refuge plan.pdf`,
    folder: "Refuges",
    share: `refuge-${code.toLowerCase()}`,
    size: 180_000 + i * 7_300,
    audience: i === 4 ? wardens : anyone,
  }));
  return [
    ...plans,
    {
      name: "Safe crossing times 2027.pdf",
      folder: "Tables",
      share: "crossing-times-2027",
      size: 412_000,
      audience: anyone,
    },
    {
      name: "Old crossing times.pdf",
      folder: "Tables",
      share: "crossing-times-old",
      size: 398_000,
      audience: anyone,
    },
    {
      name: "Rescue log.ods",
      folder: "Wardens",
      share: "rescue-log",
      size: 96_000,
      audience: { kind: "owner" },
    },
  ];
}

/**
 * A small shared-folder service: folders of files, each with a share address that opens for some. Its
 * front page lets a tester move a file, delete it, or narrow who may open it.
 */
export class StandInDrive {
  private files = firstFiles();
  /** Share addresses of moved files, and where they are now. */
  private moved = new Map<string, string>();

  readonly answer: Answer = (request, response, url) => {
    if (url.pathname === "/.folders") {
      response.writeHead(200, { "content-type": "application/json" }).end(JSON.stringify(this.files));
    } else if (url.pathname === "/.events" && request.method === "POST") {
      void readForm(request).then((form) => {
        if (form.get("event") === "reset") this.reset();
        else this.cause(form.get("event") as DriveEvent, form.get("share") ?? "");
        response.writeHead(303, { location: "./" }).end();
      });
    } else if (url.pathname.startsWith("/s/")) {
      this.open(url.pathname.slice(3), request, response, url);
    } else if (url.pathname === "/") {
      htmlPage(response, request, "Hesterley Drive", this.frontPage());
    } else response.writeHead(404, { "content-type": "text/plain" }).end("The drive has no such page.");
  };

  private reset(): void {
    this.files = firstFiles();
    this.moved = new Map();
  }

  private cause(event: DriveEvent, share: string): void {
    const file = this.files.find((candidate) => candidate.share === share);
    if (!file) return;
    if (event === "deleted") this.files = this.files.filter((other) => other !== file);
    else if (event === "narrowed")
      file.audience = file.audience.kind === "anyone" ? wardens : { kind: "owner" };
    else if (event === "moved") {
      file.folder = "Archive";
      file.share = `archive-${share}`;
      this.moved.set(share, file.share);
    }
  }

  private open(share: string, ...[request, response]: Parameters<Answer>): void {
    const now = this.moved.get(share);
    const file = this.files.find((candidate) => candidate.share === share);
    if (now) return void response.writeHead(301, { location: `./${now}` }).end();
    if (!file) return void response.writeHead(404, { "content-type": "text/plain" }).end("No such file.");
    if (file.audience.kind === "anyone")
      return htmlPage(
        response,
        request,
        file.name,
        `<p>${escapeHtml(file.folder)}, ${file.size} bytes. Anyone with the address may open it.</p>`,
      );
    const [status, words] =
      file.audience.kind === "group"
        ? [401, `For ${file.audience.name}: sign in.`]
        : [403, "Only its owner may open this."];
    response.writeHead(status as number, { "content-type": "text/plain; charset=utf-8" }).end(words);
  }

  private frontPage(): string {
    const button = (event: string, share: string, words: string): string =>
      `<form method="post" action=".events"><input type="hidden" name="event" value="${event}"><input type="hidden" name="share" value="${share}"><button>${words}</button></form>`;
    const rows = this.files
      .map((file) => {
        const who = file.audience.kind === "group" ? file.audience.name : file.audience.kind;
        return `<tr><td>${escapeHtml(file.folder)}</td><td><a href="s/${file.share}">${escapeHtml(file.name)}</a></td><td>${escapeHtml(who)}</td><td>${button("moved", file.share, "Move")}${button("narrowed", file.share, "Narrow access")}${button("deleted", file.share, "Delete")}</td></tr>`;
      })
      .join("");
    return `<table><tr><th>Folder</th><th>File</th><th>Who may open it</th><th>Make happen</th></tr>${rows}</table>${button("reset", "", "As at first")}`;
  }
}

async function readForm(request: IncomingMessage): Promise<URLSearchParams> {
  let body = "";
  for await (const part of request) body += String(part);
  return new URLSearchParams(body);
}
