/** One finding as a report tells it. */
export interface ReportedFinding {
  rule: string;
  title: string;
  severity: "stop" | "fix" | "consider";
  source: string;
  message: string;
  chapter: string | null;
  text: string | null;
  before: string;
  after: string;
  address: string | null;
  accepted: string | null;
}

/** What a run over the destinations came to, as a report tells it. */
export interface ReportedRun {
  endedAt: string;
  asked: number;
  counts: {
    sound: number;
    moved: number;
    guarded: number;
    broken: number;
    unsure: number;
    unchecked: number;
  };
  newlyBroken: number;
  wellAgain: number;
}

export interface Report {
  title: string;
  author: string;
  language: string;
  /** ISO 8601, in UTC. */
  madeAt: string;
  findings: readonly ReportedFinding[];
  /** The oldest first. */
  runs: readonly ReportedRun[];
}

const severityWords = { stop: "Stops export", fix: "Fix", consider: "Consider" } as const;
const states = ["sound", "moved", "guarded", "broken", "unsure", "unchecked"] as const;
const stateWords = {
  sound: "Sound",
  moved: "Moved",
  guarded: "Guarded",
  broken: "Broken",
  unsure: "Unsure",
  unchecked: "Not checked",
} as const;
const runsTold = 12;

const style = `:root { color-scheme: light dark; --ink: #23211c; --faint: #5e5a50; --paper: #fdfcf8; --edge: #cfc9ba; --red: #9c2a1c; }
@media (prefers-color-scheme: dark) { :root { --ink: #e8e4d8; --faint: #a8a294; --paper: #1e1d1a; --edge: #4a463d; --red: #f0917f; } }
body { max-width: 46rem; margin: 2.5rem auto; padding: 0 1.2rem; background: var(--paper); color: var(--ink); font: 1rem/1.5 Georgia, serif; }
h1, h2, h3 { line-height: 1.2; } h2 { margin-top: 2.2rem; border-bottom: 1px solid var(--edge); } h3 { margin-bottom: .2rem; }
table { border-collapse: collapse; width: 100%; } th, td { text-align: left; padding: .2rem .6rem .2rem 0; border-bottom: 1px solid var(--edge); } td.n, th.n { text-align: right; }
li { margin: .7rem 0; } mark { background: none; color: inherit; text-decoration: underline; } .faint { color: var(--faint); font-size: .92rem; } code { overflow-wrap: anywhere; } .stop { color: var(--red); font-weight: 600; }
@media print { body { margin: 0; max-width: none; } li { break-inside: avoid; } }`;

/** A report as one web page that needs nothing else: for whoever answers for the book. */
export function reportPage(report: Report): string {
  const open = report.findings.filter(({ accepted }) => accepted === null);
  const accepted = report.findings.filter((one) => one.accepted !== null);
  const count = (severity: ReportedFinding["severity"]): number =>
    open.filter((one) => one.severity === severity).length;
  const last = report.runs.at(-1);
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><link rel="icon" href="data:,"><title>Checks of ${html(report.title)}</title><style>${style}</style></head>
<body><main><h1>${html(report.title)}</h1>
<p>${html(report.author)}. Checked on ${day(report.madeAt)}.</p>
<p class="${count("stop") > 0 ? "stop" : ""}">${verdict(count("stop"), count("fix"), count("consider"))}</p>
${last ? `<p>${runWords(last)}</p>` : "<p>Its destinations have not been checked yet.</p>"}
${(["stop", "fix", "consider"] as const)
  .map((severity) =>
    section(
      severityWords[severity],
      open.filter((one) => one.severity === severity),
    ),
  )
  .join("")}
${section("Accepted, with the reasons", accepted)}
${runTable(report.runs.slice(-runsTold))}
</main></body></html>
`;
}

function verdict(stop: number, fix: number, consider: number): string {
  if (stop + fix + consider === 0) return "The rules find nothing to put right.";
  const parts = [
    stop > 0 ? `${stop} that ${stop === 1 ? "stops" : "stop"} the export` : "",
    fix > 0 ? `${fix} to fix` : "",
    consider > 0 ? `${consider} to consider` : "",
  ];
  return `Findings: ${parts.filter(Boolean).join(", ")}.`;
}

function runWords({ endedAt, asked, newlyBroken, wellAgain }: ReportedRun): string {
  const news = [
    newlyBroken > 0 ? `${newlyBroken} newly broken` : "none newly broken",
    ...(wellAgain > 0 ? [`${wellAgain} well again`] : []),
  ];
  return `The destinations were last checked on ${day(endedAt)} (${asked} checked): ${news.join(", ")}.`;
}

function section(heading: string, findings: readonly ReportedFinding[]): string {
  if (findings.length === 0) return "";
  const byRule = new Map<string, ReportedFinding[]>();
  for (const one of findings) byRule.set(one.rule, [...(byRule.get(one.rule) ?? []), one]);
  const groups = [...byRule.values()].map(
    (group) =>
      `<h3>${html(group[0]!.title)} (${group.length})</h3><p class="faint">${html(group[0]!.source)}</p><ol>${group.map(item).join("")}</ol>`,
  );
  return `<section><h2>${html(heading)}</h2>${groups.join("\n")}</section>`;
}

function item({ message, chapter, text, before, after, address, accepted }: ReportedFinding): string {
  const sentence = `${html(before)}${text === null ? "" : `<mark>${html(text) || "no words"}</mark>`}${html(after)}`;
  const home = [
    chapter === null ? "The whole book" : html(chapter),
    address === null ? "" : `<code>${html(address)}</code>`,
  ];
  return `<li>${sentence ? `<div>${sentence}</div>` : ""}<div>${html(message)}</div>${accepted === null ? "" : `<div>Accepted: ${html(accepted)}</div>`}<div class="faint">${home.filter(Boolean).join(" · ")}</div></li>`;
}

function runTable(runs: readonly ReportedRun[]): string {
  if (runs.length === 0) return "";
  const head = states.map((state) => `<th class="n" scope="col">${stateWords[state]}</th>`).join("");
  const rows = [...runs]
    .reverse()
    .map(
      ({ endedAt, counts }) =>
        `<tr><th scope="row">${day(endedAt)}</th>${states.map((state) => `<td class="n">${counts[state]}</td>`).join("")}</tr>`,
    );
  return `<section><h2>Link health over the last runs</h2><table><thead><tr><th scope="col">Run</th>${head}</tr></thead><tbody>${rows.join("")}</tbody></table></section>`;
}

function day(iso: string): string {
  return `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC`;
}

function html(text: string): string {
  return text.replace(/[&<>"]/g, (character) => `&#${character.charCodeAt(0)};`);
}
