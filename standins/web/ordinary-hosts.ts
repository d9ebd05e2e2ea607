import { StandInDrive } from "../drive/drive.ts";
import { answerLetterbox } from "../mail/letterbox.ts";
import { answerMail } from "../mail/mail.ts";
import { bytes, fixedPage, page, redirect, status, type Host } from "./answering.ts";

const onePixel = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==",
  "base64",
);

/** Hosts of the walkers' coast, which mostly answer as they should. */
export const ordinaryHosts: Record<string, Host> = {
  "tides.hesterley.example": {
    otherwise: page("Hesterley Tide Office"),
    paths: {
      "/tables/2019": status(404, "No such table."),
      "/gauges/old-pier": status(410, "This gauge has been taken away."),
      "/today": redirect(302, () => "/tables/today"),
      "/glossary": fixedPage(
        "Words of the tide",
        '<h2 id="neap">Neap</h2><p>The smallest tides.</p><h2 id="spring">Spring</h2><p>The largest.</p><p><a name="slack">Slack</a> water.</p><h2 id="höchste">Highest</h2>',
      ),
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
  "maps.hesterley.example": {
    otherwise: page("Hesterley Maps"),
    paths: {
      "/sheets/sound.png": bytes("image/png", onePixel),
      "/sheets/old.png": redirect(302, () => "/sheets/sound.png"),
      "/sheets/ferry.svg": bytes(
        "image/svg+xml",
        Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" width="8" height="8"><circle cx="4" cy="4" r="3"/></svg>',
        ),
      ),
      "/sheets/large.png": bytes("image/png", Buffer.concat([onePixel, Buffer.alloc(11 * 1024 * 1024)])),
      "/sheets/inward.png": redirect(302, () => "http://127.0.0.1/secret.png"),
      "/sheets/gone.png": status(404, "No such sheet."),
    },
  },
  "lifeboat.hesterley.example": { otherwise: page("Hesterley Lifeboat") },
  "museum.hesterley.example": {
    otherwise: page("Museum of the Sound"),
    paths: { "/archive": status(401, "For members."), "/store": status(403, "Staff only.") },
  },
  "inns.example": { otherwise: page("Inns of the Sound") },
  "drive.hesterley.example": { otherwise: new StandInDrive().answer },
  // Not a web site: the window of the stand-in mail, which a browser opens for an email link.
  "mail.hesterley.example": { otherwise: answerMail, paths: { "/letters": answerLetterbox } },
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
};

// Many plain hosts, for runs over thousands of addresses.
for (let i = 1; i <= 250; i++)
  ordinaryHosts[`stone-${i}.hesterley.test`] = { otherwise: page(`Waymark ${i}`) };
