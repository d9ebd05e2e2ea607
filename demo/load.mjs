import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { signInToDemo } from "./sign-in.mjs";

const folder = join(import.meta.dirname, "manuscript");
const open = (path) => new Blob([readFileSync(join(folder, path))]);

/**
 * Brings the demo book in over the HTTP interface, if the demo account has no book yet: as any author's
 * script would. Then it does what a manuscript file cannot hold: companion files, a companion page that is
 * not written yet, areas of a picture that are links, cross-references and signpost lists.
 * @param {string} server the server's address
 * @returns {Promise<boolean>} whether it was brought in now
 */
export async function loadDemo(server) {
  const call = await signInToDemo(server);
  if ((await call("GET", "")).length > 0) return false;
  await bringFinished(call);
  const book = await bringIn(call);
  await bringFiles(call, book);
  const page = await call("POST", `/${book}/chapters`, { title: "What to pack", role: "companion" });
  await linkInText(call, book, page.document.content[0].attrs.id);
  await drawHotspots(call, book);
  await nameVersions(call, book, "As it was brought in");
  await addPlaces(call, book);
  return true;
}

async function bringIn(call) {
  const form = new FormData();
  form.set("manuscript", open("hesterley-sound.md"), "hesterley-sound.md");
  form.append("pictures", open("pictures/monks-path.png"), "monks-path.png");
  form.set("title", "The Tidal Causeways of Hesterley Sound");
  const job = await call("POST", "/import", form);
  // The events end when the job has.
  await call("GET", `/jobs/${job.id}/events`);
  return (await call("GET", `/jobs/${job.id}/import`)).book.id;
}

/** A leaflet and an e-book that were made long ago, whose links are worked on in place. */
async function bringFinished(call) {
  for (const name of ["huts-of-the-outer-sands.pdf", "a-year-of-low-water.epub"]) {
    const form = new FormData();
    const file = readFileSync(join(import.meta.dirname, "../web/public/examples", name));
    form.set("file", new Blob([file]), name);
    const job = await call("POST", "/finished", form);
    await call("GET", `/jobs/${job.id}/events`);
  }
}

async function bringFiles(call, book) {
  const form = new FormData();
  for (const name of readdirSync(join(folder, "files"))) form.append("file", open(`files/${name}`), name);
  await call("POST", `/${book}/files`, form);
}

async function linkInText(call, book, page) {
  const link = async (phrase, destination) => {
    const { chapters } = await call("POST", `/${book}/links/search`, { phrase });
    const { chapterId, revision, mentions } = chapters[0];
    const { from, to } = mentions[0];
    await call("POST", `/${book}/links`, {
      kind: "mentions",
      of: phrase,
      links: [{ chapterId, revision, from, to, destination }],
    });
  };
  await link("good boots", { kind: "place", target: page });
  await link("harbour wall", { kind: "file", share: "https://drive.hesterley.example/s/refuge-r5" });
}

/** Makes links of what the sketch map shows. */
async function drawHotspots(call, book) {
  const frame = { line: "none", thickness: 2, colour: "#1d4f8f" };
  const web = (address) => ({ kind: "web", address });
  const hotspots = [
    {
      id: "spotternhead",
      shape: "rectangle",
      points: [
        [0.04, 0.4],
        [0.24, 0.66],
      ],
      destination: web("https://museum.hesterley.example/places/tern-head-chapel"),
      alt: "Tern Head chapel",
      description: null,
      frame,
    },
    {
      id: "spotrefugebox",
      shape: "rectangle",
      points: [
        [0.44, 0.4],
        [0.62, 0.57],
      ],
      destination: web("https://lifeboat.hesterley.example/refuge-boxes"),
      alt: "The refuge box",
      description: "What is in the refuge boxes",
      frame: { ...frame, line: "dashed" },
    },
    {
      id: "spotaldryisle",
      shape: "ellipse",
      points: [
        [0.71, 0.25],
        [0.975, 0.71],
      ],
      destination: web("https://maps.hesterley.example/aldry"),
      alt: "The island of Aldry",
      description: null,
      frame,
    },
  ];
  await rewrite(call, book, (document) => {
    for (const node of walk(document)) if (node.type === "picture") node.attrs.hotspots = hotspots;
  });
}

/** Keeps every chapter as it is, under a name. */
async function nameVersions(call, book, name) {
  for (const { id } of await call("GET", `/${book}/chapters`))
    await call("POST", `/${book}/chapters/${id}/versions`, { name });
}

/** Puts in what follows from places: lists of jumps with ways back, and words that follow their target. */
async function addPlaces(call, book) {
  await call("PATCH", `/${book}`, {
    conventions: {
      headings: 1,
      figures: "book",
      tables: "book",
      notes: "chapter",
      notesAt: "page",
      returnWords: "↩",
    },
  });
  const places = await call("GET", `/${book}/places`);
  const idOf = (text) => places.find((place) => place.text === text).id;
  const signposts = (id, attrs) => ({
    type: "signposts",
    attrs: { id, scope: "book", section: null, depth: 1, anchors: [], returnWords: null, ...attrs },
  });
  const see = (id, target, form, fallback = "text") => ({
    type: "cross_reference",
    attrs: { id, target, form, fallback },
  });
  const contents = signposts("guidecontents", {
    of: "contents",
    heading: "In this guide",
    returnWords: "Back to what is in this guide",
  });
  const questions = signposts("guidequestions", {
    of: "questions",
    scope: "section",
    section: idOf("Answers"),
    depth: 2,
    heading: "What they ask",
    returnWords: "Back to the questions",
  });
  const shown = signposts("guidefigures", { of: "figures", heading: "Sketch maps" });
  const tables = signposts("guidetables", { of: "tables", heading: "Tables" });
  const glance = signposts("guideglance", {
    of: "anchors",
    heading: "At a glance",
    anchors: ["up-to-the-knees", "calling", "if-you-sink"].map(idOf),
  });
  const caption = (id, words) => ({
    type: "caption",
    attrs: { id, of: "table" },
    content: [{ type: "text", text: words }],
  });
  const text = (words) => ({ type: "text", text: words });
  const insertions = {
    "Before you set out": (document) => {
      document.content.splice(3, 0, contents);
      const table = document.content.findIndex(({ type }) => type === "table");
      document.content.splice(table + 1, 0, caption("gaugestable", "The four causeways and their gauges"));
    },
    "The Long Stane": (document) => {
      const [first] = document.content.filter(({ type }) => type === "paragraph");
      first.content.push(
        text(" How it compares with the others is in "),
        see("seegauges", "gaugestable", "number"),
        text(" on "),
        see("seegaugespage", "gaugestable", "page"),
        text("."),
      );
    },
    "Questions walkers ask": (document) => {
      const answers = document.content.findIndex(({ type }) => type === "heading");
      document.content.splice(answers, 0, questions);
      const paragraph = document.content.find((node) => textOf(node).includes("table of gauges"));
      paragraph.content.push(
        text(" It is "),
        see("seegauges2", "gaugestable", "number"),
        text("; what to do when time runs out is told in "),
        see("seeturns", idOf("If the water turns"), "page-and-text"),
        text("."),
      );
    },
    "If the water turns": (document) => {
      document.content.splice(1, 0, glance);
    },
    "Widow's Row": (document) => {
      // Readers keep the page of the book open beside a reading that changes by the minute.
      for (const { marks = [] } of walk(document))
        for (const { attrs } of marks)
          if (attrs?.destination?.address === "https://slow.example/marrow/live") attrs.newWindow = true;
    },
    "Getting there and staying": (document) => {
      const table = document.content.findIndex(({ type }) => type === "table");
      document.content.splice(table + 1, 0, caption("bedstable", "Where to sleep"));
      document.content.push(shown, tables);
    },
  };
  await rewrite(call, book, (document) => insertions[textOf(document.content[0])]?.(document));
}

/** Changes each chapter's document in place, and saves those that came out changed. */
async function rewrite(call, book, change) {
  for (const { id } of await call("GET", `/${book}/chapters`)) {
    const { document, revision } = await call("GET", `/${book}/chapters/${id}`);
    const before = JSON.stringify(document);
    change(document);
    if (JSON.stringify(document) !== before)
      await call("PUT", `/${book}/chapters/${id}`, { revision, document });
  }
}

function* walk(node) {
  yield node;
  for (const child of node.content ?? []) yield* walk(child);
}

function textOf(node) {
  return [...walk(node)].map(({ text }) => text ?? "").join("");
}
