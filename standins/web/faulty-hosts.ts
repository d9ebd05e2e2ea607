import { deflateRawSync, gzipSync } from "node:zlib";
import { htmlPage, type Answer } from "../answers.ts";
import { after, bytes, fixedPage, isHead, limited, page, redirect, status, type Host } from "./answering.ts";

const missingWords = (words: string, body = "<p>Try the search.</p>") => fixedPage(words, body);
const signInForm =
  '<form method="post"><label>Name <input name="who"></label><label>Password <input type="password" name="word"></label><button>Go</button></form>';

const aboutTides =
  "The sand lies bare for four hours around low water, and the fifth post stands dry for two of them. Who walks out later has to wait in the hut until the next ebb, since the channel fills behind the bank before it reaches the posts.";
const aboutHouses =
  "New homes with a view of the sea are for sale now, from two rooms to six, each with a garden and a place for a car. Ask our agents about loans, and visit the show house at any hour of the week without an appointment.";

/** A page about tides, and one about houses under the same address. */
function turned(when: "then" | "now") {
  return when === "then"
    ? fixedPage("Tides of the Sound", `<main><p>${aboutTides}</p></main>`)
    : fixedPage("Houses by the sea", `<main><p>${aboutHouses}</p></main>`);
}

/** Each page whose path begins so is another from when it was asked with `?turn`, however often it was asked before. */
function turningWhenTold(path: string, otherwise: Answer): Answer {
  const told = new Set<string>();
  return (request, response, url) => {
    if (url.search === "?turn") told.add(url.pathname);
    const is = url.pathname.startsWith(path) ? turned(told.has(url.pathname) ? "now" : "then") : otherwise;
    is(request, response, url);
  };
}

/** Hosts that each show one way in which an answer is not what it seems, or does not come. */
export const faultyHosts: Record<string, Host> = {
  "faulty.example": { otherwise: status(500, "Out of order.") },
  "circle.example": { otherwise: redirect(302, (url) => (url.pathname === "/a" ? "/b" : "/a")) },
  // Whoever brings no cookie is led away to get one, where the page itself is asked for, and back.
  "greeting.example": {
    otherwise: (request, response, url) => {
      if (request.headers.cookie?.includes("greeted=yes")) return page("Greeted")(request, response, url);
      const isHello = url.pathname === "/hello";
      const location = isHello ? url.searchParams.get("to")! : `/hello?to=${url.pathname}`;
      const cookie = isHello && !isHead(request) ? { "set-cookie": "greeted=yes; Path=/; HttpOnly" } : {};
      response.writeHead(302, { location, ...cookie }).end();
    },
  },
  // Its pages lead on by themselves, as those of sites do that were put elsewhere.
  "onward.example": {
    otherwise: page("Onward"),
    paths: {
      "/old": ledOn("new/tables#neap"),
      "/old-header": (request, response, url) =>
        fixedPage("Old", "")(request, response.setHeader("refresh", "0; url=/new/tables"), url),
      "/lost": ledOn("https://tides.hesterley.example/tables/2019"),
      "/each": ledOn("/other"),
      "/other": ledOn("/each"),
      "/new/tables": fixedPage("Tables", '<h1 id="neap">Neap tides</h1>'),
      // Bytes of UTF-8, which no header should have, and many have.
      "/raw": redirect(302, () => Buffer.from("/gezeiten-tänze").toString("latin1")),
    },
  },
  // It keeps silent to questions for the head alone.
  "silent.example": {
    otherwise: (request, response, url) => {
      if (!isHead(request)) page("Silent")(request, response, url);
    },
  },
  // Its head is longer than the runtime takes by itself, which no browser minds.
  "wordy.example": {
    otherwise: (request, response, url) => {
      for (let i = 0; i < 20; i++) response.setHeader(`x-policy-${i}`, "tide ".repeat(400));
      page("Wordy")(request, response, url);
    },
  },
  "endless.example": { otherwise: redirect(302, (url) => `/${Number(url.pathname.slice(1)) + 1}`) },
  // It never answers; the checker has to give up by itself.
  "slow.example": { otherwise: () => undefined },
  "dropped.example": { otherwise: (request) => void request.socket.destroy() },
  // A redirect into the author's own network, which the address policy has to refuse.
  "inward.example": { otherwise: redirect(302, () => "http://127.0.0.1/") },
  "script.example": { otherwise: redirect(302, () => "javascript:alert(1)") },
  // It sends a body to a question for the head alone.
  "stray.example": {
    otherwise: (request, response, url) => {
      if (!isHead(request)) return page("Stray")(request, response, url);
      const body = "<title>Stray</title>";
      request.socket.write(
        `HTTP/1.1 200 OK\r\ncontent-type: text/html\r\ncontent-length: ${body.length}\r\n\r\n${body}`,
      );
    },
  },
  "lame.example": { otherwise: page("Never seen"), isLame: true },

  // Passing faults: each path is well from its fifth question on, or once the server has had its rest.
  "passing.example": { otherwise: after(4, status(503, "In a moment."), page("Well again")) },
  "resting.example": {
    otherwise: after(2, status(503, "Resting.", { "retry-after": "1" }), page("Rested")),
  },
  "shut.example": { otherwise: status(503, "Next week.", { "retry-after": "604800" }) },
  "strict.example": { otherwise: limited(8, page("Strict")) },
  "patient.example": {
    otherwise: page("Patient"),
    paths: {
      "/robots.txt": bytes(
        "text/plain",
        Buffer.from("User-agent: *\nDisallow: /private\nCrawl-delay: 0.4\n"),
      ),
    },
  },

  // Good answers that are none.
  "lost.example": {
    otherwise: missingWords("Page not found"),
    paths: {
      "/": page("Lost"),
      "/de": missingWords("Seite nicht gefunden"),
      "/fr": missingWords("Page introuvable"),
      "/es": missingWords("Página no encontrada"),
      "/nl": missingWords("Pagina niet gevonden"),
      "/da": missingWords("Siden blev ikke fundet"),
      "/heading": (request, response) =>
        htmlPage(response, request, "Sound Almanac", "<p>Nothing.</p>", "Error 404"),
      // Its words speak of losing and finding, and it is well.
      "/well": missingWords("Lost and found office", "<p>What was not found is kept for a year.</p>"),
    },
  },
  // Every name gets the same page, though the page about ferries is its own.
  "shell.example": {
    otherwise: fixedPage("Sound Portal", "<p>Loading.</p>"),
    paths: { "/ferries": fixedPage("Sound Portal: Ferries", "<p>They sail on the hour.</p>") },
  },
  "members.example": {
    otherwise: redirect(302, (url) => `/login?next=${encodeURIComponent(url.pathname)}`),
    paths: {
      "/login": fixedPage("Sign in", signInForm),
      "/wall": fixedPage("Sign in to read", signInForm),
    },
  },
  "parked.example": {
    otherwise: fixedPage("parked.example", "<p>This domain is for sale. Make an offer.</p>"),
  },
  "front.example": {
    otherwise: redirect(301, () => "/"),
    paths: { "/": fixedPage("The front", "<p>Welcome.</p>") },
  },
  "types.example": {
    otherwise: page("Types"),
    paths: {
      "/plan.pdf": bytes("application/pdf", Buffer.from("%PDF-1.7\n")),
      "/gone.pdf": fixedPage("Library", "<p>Choose a shelf.</p>"),
      "/untold": (request, response) => response.writeHead(200).end(isHead(request) ? undefined : "tide"),
    },
  },

  // Certificates that no browser trusts.
  "expired.example": { otherwise: page("Expired"), certificate: "expired" },
  "othername.example": { otherwise: page("Other name"), certificate: "other-name" },
  "plain.example": { otherwise: page("Without https"), certificate: "none" },
  // Its certificate is signed by one that it does not send along.
  "unchained.example": { otherwise: page("Unchained"), certificate: "unchained" },
  "selfsigned.example": { otherwise: page("Self-signed"), certificate: "self-signed" },

  "ending.example": { otherwise: page("Ending"), certificate: "ending" },

  // Shut to programs: by what a guard says, by refusing whatever is asked; a door for members, beside which all else answers;
  // and a store that refuses what it has not as what it does not show.
  "guard.example": {
    otherwise: (request, response) => {
      response.writeHead(403, { "content-type": "text/html" });
      response.end(
        isHead(request)
          ? undefined
          : "<title>Just a moment...</title><p>Checking your browser before you go on.</p>",
      );
    },
  },
  "wall.example": { otherwise: status(403, "Forbidden.") },
  "club.example": {
    otherwise: status(404, "Nothing here."),
    paths: { "/": fixedPage("The club", "<p>Come in.</p>"), "/walks": status(403, "For members.") },
  },
  "store.example": {
    otherwise: status(403, "Access is denied."),
    paths: { "/": fixedPage("The store", "<p>Come in.</p>") },
  },
  // It wants to be asked by https alone, and counts who comes by it.
  "strict-https.example": {
    otherwise: (request, response, url) => {
      response.setHeader("strict-transport-security", "max-age=31536000");
      page("Strict")(request, response, url);
    },
  },
  "counting.example": {
    otherwise: redirect(301, ({ pathname }) => `${pathname}-now?utm_source=counting`),
    paths: {
      "/same": (request, response, url) =>
        (url.search === "" ? redirect(301, () => "/same?utm_source=counting") : page("Same"))(
          request,
          response,
          url,
        ),
      "/other-now": page("Other"),
    },
  },
  // Its pages are others from the third question on, or once they are told to, or only of another day.
  "turning.example": {
    otherwise: turningWhenTold("/then-and-now", page("Turning")),
    paths: {
      "/tides": after(2, turned("then"), turned("now")),
      // Well for the copy and its first run.
      "/kept-then-gone": after(3, turned("then"), status(410, "Gone.")),
      "/daily": (request, response) =>
        htmlPage(
          response,
          request,
          "Tides by day",
          `<main><p>${aboutTides}</p><p>Seen ${Math.floor(Math.random() * 1e6)} times.</p></main>`,
        ),
    },
  },

  // Letters in other character sets; the titles are only right where the set is read right.
  "letters.example": {
    otherwise: page("Letters"),
    paths: {
      "/latin": bytes(
        "text/html; charset=windows-1252",
        Buffer.from("<title>Fl\xf3\xf0 \x96 H\xf6he</title><h1>x</h1>", "latin1"),
      ),
      "/meta": bytes(
        "text/html",
        Buffer.from('<meta charset="iso-8859-1"><title>Stra\xdfe</title><h1>x</h1>', "latin1"),
      ),
      "/wide": bytes("text/html", Buffer.from("\ufeff<title>Été</title><h1>x</h1>", "utf16le")),
      "/unknown": bytes("text/html; charset=moon-8", Buffer.from("<title>Sound</title><h1>x</h1>")),
    },
  },
  "long.example": {
    otherwise: (request, response) => {
      response.writeHead(200, { "content-type": "text/html" });
      if (isHead(request)) return void response.end();
      const filler = "<p>tide</p>".repeat(9_000);
      response.end(`<title>A long page</title><h1>Long</h1>${filler}<h2 id="late">Late</h2>${filler}`);
    },
  },

  // More than the checker wants to read: without end, slowly without end, and packed.
  "flood.example": {
    otherwise: (request, response) => {
      if (isHead(request)) return void response.writeHead(405).end();
      response.writeHead(200, { "content-type": "text/html" });
      const chunk = "tide ".repeat(20_000);
      const pour = (): void => {
        while (!response.destroyed && response.write(chunk)) continue;
        if (!response.destroyed) response.once("drain", pour);
      };
      pour();
    },
  },
  "drip.example": {
    otherwise: (request, response) => {
      response.writeHead(200, { "content-type": "text/html" });
      if (isHead(request)) return void response.end();
      const timer = setInterval(() => response.write("<p>drop</p>"), 200);
      response.once("close", () => clearInterval(timer));
    },
  },
  "packed.example": {
    otherwise: (request, response, url) => {
      if (url.pathname === "/bare") {
        const bare = deflateRawSync("<title>Bare</title><h1>Bare</h1>");
        return bytes("text/html", bare, { "content-encoding": "deflate" })(request, response, url);
      }
      const packed = url.pathname === "/broken" ? Buffer.from("not packed at all") : bomb();
      bytes("text/html", packed, { "content-encoding": "gzip" })(request, response, url);
    },
  },
};

/** A page that leads on by itself at once. */
function ledOn(to: string): Answer {
  return fixedPage("Old", `<meta http-equiv="refresh" content="0; url=${to}"><p>It has moved.</p>`);
}

let packedFlood: Buffer | null = null;

/** 200 MB of blanks behind a title, which pack into some 200 KB. */
function bomb(): Buffer {
  packedFlood ??= Buffer.concat([
    gzipSync("<title>Packed</title><p>"),
    ...Array<Buffer>(200).fill(gzipSync(Buffer.alloc(1_000_000, 32))),
  ]);
  return packedFlood;
}
