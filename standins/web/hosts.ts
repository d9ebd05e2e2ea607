import { StandInDrive } from "../drive/drive.ts";
import { answerMail } from "../mail/mail.ts";
import { htmlPage, type Answer } from "../answers.ts";

const page =
  (title: string): Answer =>
  (request, response, url) => {
    const shown = `${title}${url.pathname === "/" ? "" : ` — ${decodeURIComponent(url.pathname.slice(1)).replace(/[-/]/g, " ")}`}`;
    htmlPage(response, request, shown, `<p>A page of the stand-in web: ${url.host}.</p>`);
  };

const status =
  (code: number, text: string): Answer =>
  (_request, response) => {
    response.writeHead(code, { "content-type": "text/plain; charset=utf-8" });
    response.end(text);
  };

const redirect =
  (code: number, target: (url: URL) => string): Answer =>
  (_request, response, url) => {
    response.writeHead(code, { location: target(url) });
    response.end();
  };

/** What each path of a host answers; a path that is not listed answers as the host does. */
interface Host {
  otherwise: Answer;
  paths?: Record<string, Answer>;
}

/**
 * The hosts of the stand-in web. Each shows one way in which a server on the real web answers; all are
 * under names kept for examples and tests.
 */
export const hosts: Record<string, Host> = {
  "tides.hesterley.example": {
    otherwise: page("Hesterley Tide Office"),
    paths: {
      "/tables/2019": status(404, "No such table."),
      "/gauges/old-pier": status(410, "This gauge has been taken away."),
      "/today": redirect(302, () => "/tables/today"),
    },
  },
  "harbour.hesterley.example": {
    otherwise: page("Port of Hesterley"),
    paths: { "/notices": redirect(301, () => "/mariners/notices") },
  },
  "causeways.example": { otherwise: page("The Causeway Wardens") },
  "saltmarsh.example": {
    otherwise: page("Saltmarsh Trust"),
    paths: { "/hides/east": status(404, "Not here.") },
  },
  "ferry.hesterley.example": { otherwise: page("Sound Ferries") },
  "birds.hesterley.example": { otherwise: page("Sound Bird Notes") },
  "maps.hesterley.example": { otherwise: page("Hesterley Maps") },
  "lifeboat.hesterley.example": { otherwise: page("Hesterley Lifeboat") },
  "museum.hesterley.example": {
    otherwise: page("Museum of the Sound"),
    paths: { "/archive": status(401, "For members."), "/store": status(403, "Staff only.") },
  },
  "inns.example": { otherwise: page("Inns of the Sound") },
  "drive.hesterley.example": { otherwise: new StandInDrive().answer },
  // Not a web site: the window of the stand-in mail, which a browser opens for an email link.
  "mail.hesterley.example": { otherwise: answerMail },
  // It answers GET alone, as some servers do.
  "weather.hesterley.example": {
    otherwise: (request, response, url) => {
      if (request.method === "HEAD") status(405, "Ask with GET.")(request, response, url);
      else page("Sound Weather")(request, response, url);
    },
  },
  // Moved as a whole to another host.
  "old-tides.example": {
    otherwise: redirect(301, (url) => `https://tides.hesterley.example${url.pathname}`),
  },
  "faulty.example": { otherwise: status(500, "Out of order.") },
  "circle.example": { otherwise: redirect(302, (url) => (url.pathname === "/a" ? "/b" : "/a")) },
  "endless.example": { otherwise: redirect(302, (url) => `/${Number(url.pathname.slice(1)) + 1}`) },
  // It never answers; the checker has to give up by itself.
  "slow.example": { otherwise: () => undefined },
  "dropped.example": { otherwise: (request) => void request.socket.destroy() },
  // A redirect into the author's own network, which the address policy has to refuse.
  "inward.example": { otherwise: redirect(302, () => "http://127.0.0.1/") },
  "script.example": { otherwise: redirect(302, () => "javascript:alert(1)") },
  // More than the checker wants to read.
  "flood.example": {
    otherwise: (request, response) => {
      if (request.method === "HEAD") return void response.writeHead(405).end();
      response.writeHead(200, { "content-type": "text/plain" });
      const chunk = "tide ".repeat(20_000);
      const pour = (): void => {
        while (!response.destroyed && response.write(chunk)) continue;
        if (!response.destroyed) response.once("drain", pour);
      };
      pour();
    },
  },
};

// Many plain hosts, for runs over thousands of addresses.
for (let i = 1; i <= 250; i++) hosts[`stone-${i}.hesterley.test`] = { otherwise: page(`Waymark ${i}`) };
