import type { Fault } from "./exported-link.ts";
import { FaultList } from "./fault-list.ts";
import { judgeStyle, wrongRules } from "./judge-style.ts";
import { judgeAttribute, judgeElement } from "./page-markup.ts";

type Attributes = Readonly<Record<string, string>>;

const graphics = new Set([
  "rect",
  "circle",
  "ellipse",
  "polygon",
  "path",
  "line",
  "image",
  "use",
  "g",
  "text",
]);
/** What tells of a page, and shows nothing. */
const ofHead = new Set(["title", "meta", "style"]);
/** Elements of HTML that run, take presses themselves, or lead elsewhere. */
const wrongElements: Record<string, string> = {
  script: "A script runs in it.",
  base: "A base address leads every relative link elsewhere.",
  iframe: "Another page is shown in it, which takes presses.",
  object: "Something foreign is shown in it, which takes presses.",
  embed: "Something foreign is shown in it, which takes presses.",
  form: "A form is in it.",
  input: "A field is in it, which takes presses.",
  button: "A button is in it, which takes presses.",
  dialog: "A window is in it, which takes presses.",
};

/**
 * Watches a page, while it is read from its first tag to its last, for what keeps a reader's press from its links: a
 * style or an attribute of the link or of what it stands in (WAI-ARIA 1.2, HTML), a thing laid over it, or a script.
 */
export class PressWatch {
  private readonly told = new FaultList();
  private readonly reasons: (string | null)[] = [];
  private readonly open: string[] = [];
  private readonly ids = new Set<string>();
  private readonly areasIn: boolean[] = [];

  /** @param page what the page is called */
  constructor(private readonly page: string) {}

  get faults(): Fault[] {
    return this.told.all;
  }

  /** Why a press on what is open now reaches nothing, or nobody hears of it; null where all is well. */
  get unreachable(): string | null {
    return this.reasons.find((reason) => reason !== null) ?? null;
  }

  enter(tag: string, attributes: Attributes): void {
    const reason = reasonOf(tag, attributes);
    this.judge(tag, attributes);
    this.open.push(tag);
    this.reasons.push(reason);
    if (tag === "svg") this.areasIn.push(false);
    if (tag === "a" && this.areasIn.length > 0) this.areasIn[this.areasIn.length - 1] = true;
  }

  leave(): void {
    if (this.open.pop() === "svg") this.areasIn.pop();
    this.reasons.pop();
  }

  /** A style sheet of the page. */
  style(sheet: string): void {
    for (const { selector, why } of wrongRules(sheet))
      this.tell(`By the style rule “${selector}” what it is for ${why}.`);
  }

  private judge(tag: string, attributes: Attributes): void {
    const wrong = wrongElements[tag] ?? judgeElement(tag);
    if (wrong !== null) this.tell(wrong);
    if (tag === "meta") this.judgeMeta(attributes);
    if (ofHead.has(tag) && !this.open.some((name) => name === "head" || name === "svg"))
      this.tell(`“${tag}” stands in its text, which is not shown.`);
    if (wrong === null) this.judgeAttributes(tag, attributes);
    const { id, style } = attributes;
    if (id !== undefined && this.ids.has(id)) this.tell(`Two things have the name “${id}”.`);
    if (id !== undefined) this.ids.add(id);
    const isIn = (name: string): boolean => this.open.includes(name);
    if (style !== undefined && !isIn("a") && tag !== "a") {
      const why = judgeStyle(style);
      if (why !== null) this.tell(`An element “${tag}” ${why}.`);
    }
    if (graphics.has(tag) && this.areasIn.at(-1) && !isIn("a"))
      this.tell("A shape lies over the areas of a picture, and takes presses.");
  }

  private judgeMeta({ "http-equiv": order, name, content = "" }: Attributes): void {
    if (order !== undefined)
      this.tell(
        order.toLowerCase() === "refresh"
          ? "It leads elsewhere by itself."
          : `It asks readers’ programs for “${order}”.`,
      );
    if (name === "viewport" && !content.startsWith("width=device-width"))
      this.tell(`It is laid out for a screen of its own: “${content}”.`);
  }

  private judgeAttributes(tag: string, attributes: Attributes): void {
    for (const [name, value] of Object.entries(attributes)) {
      const why = /^on/i.test(name) ? `A script answers “${name}”.` : judgeAttribute(tag, name, value);
      if (why !== null) this.tell(why);
    }
  }

  /** Something of the page does something to links. */
  tell(what: string): void {
    this.told.tell(this.page, what);
  }
}

const ownRoles = /^(doc-\w+|link|img)$/;

function reasonOf(tag: string, attributes: Attributes): string | null {
  const has = (name: string): boolean => attributes[name] !== undefined;
  if (has("hidden")) return "It is hidden.";
  if (has("inert")) return "It takes no press.";
  if (attributes["aria-hidden"] === "true") return "It is hidden from screen readers.";
  const { style, tabindex, role } = attributes;
  const styles = ["display", "visibility", "pointer-events", "opacity"].filter(has);
  const why = judgeStyle([style ?? "", ...styles.map((name) => `${name}:${attributes[name]}`)].join(";"));
  if (why !== null) return `It ${why}.`;
  if (tag === "a" && Number(tabindex) < 0) return "No key reaches it.";
  if (tag === "a" && role !== undefined && !ownRoles.test(role))
    return `It says that it is “${role}”, and no link.`;
  return null;
}
