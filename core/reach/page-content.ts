/** Elements around what a page is about (WHATWG HTML, sections 4.3 and 4.10). */
const around = new Set([
  "nav",
  "header",
  "footer",
  "aside",
  "form",
  "button",
  "select",
  "menu",
  "dialog",
  "time",
]);
const aroundRole =
  /^(?:navigation|banner|contentinfo|complementary|search|menu|menubar|toolbar|dialog|alert)$/i;
/** Classes and ids under which pages keep what changes from day to day (common practice). */
const aroundName =
  /(?:^|[\s_-])(?:nav|navbar|menu|sidebar|side-?bar|breadcrumbs?|footer|header|banner|ads?|advert\w*|sponsor\w*|promo\w*|cookies?|consent|newsletter|share|sharing|social|related|recommended|comments?|replies|latest|news(?:-?list)?|ticker|counter|popup|toc|pagination|widget)(?:$|[\s_-])/i;
const blocks = new Set(
  "p li dd dt td th div section article main h1 h2 h3 h4 h5 h6 blockquote pre figcaption caption summary address tr ul ol dl table body".split(
    " ",
  ),
);
const headings = new Set(["h1", "h2", "h3"]);

/** So many letters of what a page is about are kept: what comes behind hardly tells more. */
const lettersKept = 60_000;
const headingsKept = 30;
const headingLength = 160;
/** A block with more of its letters in links is a list of them. */
const mostInLinks = 0.6;
/** In a longer block there are words enough beside them. */
const listLength = 400;
/** Below this a `main` says too little to be all that there is. */
const leastInMain = 200;
/** So many letters behind a part say what it is about. */
const partLength = 400;

interface Open {
  name: string;
  isAround: boolean;
  isMain: boolean;
}

/** What a page is about: its words without what stands around them on every page of its site. */
export class PageContent {
  readonly headings: string[] = [];
  private readonly parts = new Map<string, string>();
  private readonly endedParts = new Set<string>();
  private readonly open: Open[] = [];
  private aroundDepth = 0;
  private mainDepth = 0;
  private linkDepth = 0;
  private headingDepth = 0;
  private block = "";
  private inLinks = 0;
  private heading = "";
  private inMain = "";
  private beside = "";

  /** Begins an element. @param parts the id and name by which it is looked for */
  begin(name: string, attributes: Record<string, string>, parts: readonly string[]): void {
    if (blocks.has(name) || name === "br") this.flush();
    const isMain = name === "main" || name === "article" || attributes["role"] === "main";
    const isAround =
      !isMain &&
      name !== "body" &&
      name !== "html" &&
      (around.has(name) ||
        aroundRole.test(attributes["role"] ?? "") ||
        attributes["hidden"] !== undefined ||
        aroundName.test(`${attributes["class"] ?? ""} ${attributes["id"] ?? ""}`));
    this.open.push({ name, isAround, isMain });
    if (isAround) this.aroundDepth++;
    if (isMain) this.mainDepth++;
    if (name === "a") this.linkDepth++;
    if (headings.has(name)) {
      this.headingDepth++;
      this.heading = "";
    }
    // What a part says ends at the next heading.
    if (/^h[1-6]$/.test(name))
      for (const [part, words] of this.parts) if (words.trim() !== "") this.endedParts.add(part);
    for (const part of parts) if (!this.parts.has(part)) this.parts.set(part, "");
  }

  text(text: string): void {
    for (const [part, words] of this.parts)
      if (words.length < partLength && !this.endedParts.has(part)) this.parts.set(part, words + text);
    if (this.aroundDepth > 0 || this.isFull) return;
    this.block += text;
    if (this.linkDepth > 0) this.inLinks += text.trim().length;
    if (this.headingDepth > 0) this.heading += text;
  }

  end(name: string): void {
    const at = this.open.findLastIndex((one) => one.name === name);
    if (at === -1) return;
    if (blocks.has(name)) this.flush();
    for (const part of this.parts.keys()) this.parts.set(part, `${this.parts.get(part)!} `);
    for (const one of this.open.splice(at)) {
      if (one.isAround) this.aroundDepth--;
      if (one.isMain) this.mainDepth--;
      if (one.name === "a") this.linkDepth--;
      if (headings.has(one.name)) {
        this.headingDepth--;
        const words = this.heading.replace(/\s+/g, " ").trim().slice(0, headingLength);
        if (words !== "" && this.aroundDepth === 0 && this.headings.length < headingsKept)
          this.headings.push(words);
      }
    }
  }

  /** Whether more of the page would not be kept. */
  get isFull(): boolean {
    return this.inMain.length >= lettersKept || (this.inMain === "" && this.beside.length >= lettersKept);
  }

  /** Whether enough is known of what stands at the parts that are looked for. */
  get hasParts(): boolean {
    return [...this.parts].every(([part, words]) => words.length >= partLength || this.endedParts.has(part));
  }

  /** The words that the page is about. */
  words(): string {
    this.flush();
    return this.inMain.length >= leastInMain ? this.inMain : this.inMain + this.beside;
  }

  /** The words behind each part that was looked for and is there. */
  wordsAtParts(): Map<string, string> {
    return new Map(
      [...this.parts].map(([part, words]) => [part, words.replace(/\s+/g, " ").trim().slice(0, partLength)]),
    );
  }

  private flush(): void {
    const text = this.block.trim();
    const isList = text.length < listLength && this.inLinks > text.length * mostInLinks;
    this.block = "";
    this.inLinks = 0;
    if (text === "" || isList) return;
    if (this.mainDepth > 0) this.inMain += `${text}\n`;
    else if (this.beside.length < lettersKept) this.beside += `${text}\n`;
  }
}
