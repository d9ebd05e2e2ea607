import { StandInDrive } from "../drive/drive.ts";
import { answerLetterbox } from "../mail/letterbox.ts";
import { answerMail } from "../mail/mail.ts";
import { fixedPage, page, redirect, status, type Host } from "./answering.ts";

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
  "maps.hesterley.example": { otherwise: page("Hesterley Maps") },
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
