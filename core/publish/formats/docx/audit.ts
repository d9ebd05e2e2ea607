import type { Fault } from "../../../proof/exported-link.ts";
import { FaultList } from "../../../proof/fault-list.ts";
import { nameSet } from "../../../proof/name-set.ts";
import { parsePart } from "../../../proof/xml-part.ts";
import { judgeTag } from "./read-markup.ts";

type Files = Record<string, Uint8Array>;

const parts =
  /^(\[Content_Types\]\.xml|_rels\/\.rels|docProps\/(app|core|custom)\.xml|word\/_rels\/\w+\.xml\.rels|word\/(document|styles|settings|numbering|footnotes|endnotes|fontTable)\.xml|word\/theme\/theme\d+\.xml|word\/media\/[^/]+)$|\/$/;
/** What one part is to another where nothing of it is run, asked for or shown in place of the text (ECMA-376 part 1, 11.3, 15). */
const relations =
  /\/(officeDocument|core-properties|extended-properties|custom-properties|styles|settings|numbering|footnotes|endnotes|fontTable|theme|hyperlink|image)$/;
/** What is told of a document (22.2.2), but for the address at which all its links begin. */
const properties = nameSet(
  "Properties Template TotalTime Pages Words Characters Lines Paragraphs Company Application AppVersion DocSecurity",
  "ScaleCrop LinksUpToDate SharedDoc HyperlinksChanged CharactersWithSpaces Manager TitlesOfParts HeadingPairs",
);
const relationsOfText = "word/_rels/document.xml.rels";
const main = "application/vnd.openxmlformats-officedocument.wordprocessingml.";

/**
 * Looks through the parts of a text document beside its text for what may keep readers from its words and links, or lead
 * them elsewhere: all that is not known to leave them as they are (ECMA-376 part 1, 17.7 and 17.15; part 2).
 * @throws ProofError where a part cannot be read
 */
export function auditDocx(files: Files): Fault[] {
  const faults = new FaultList();
  const tell = faults.tell.bind(faults);
  for (const part of ["word/styles.xml", "word/settings.xml", "word/numbering.xml"])
    if (files[part])
      parsePart(files, part, (tag, attributes) => {
        if (tag === "w:vanish" || tag === "w:webHidden") tell(part, "Words are hidden by a style.");
        const why = judgeTag(part, tag, attributes);
        if (why !== null) tell(part, why);
      });
  if (files["docProps/app.xml"])
    parsePart(files, "docProps/app.xml", (tag) => {
      if (!properties.has(tag) && !tag.startsWith("vt:"))
        tell("docProps/app.xml", `“${tag}” may lead links elsewhere.`);
    });
  /** The parts that the text names. */
  const related = new Set<string>();
  for (const name of Object.keys(files)) {
    if (!parts.test(name)) tell("The document", `“${name}” is no part of a text.`);
    if (name.endsWith(".rels")) judgeRelations(name);
  }
  judgeTypes();
  return faults.all;

  function judgeRelations(part: string): void {
    const seen = new Set<string>();
    parsePart(files, part, (tag, { Id = "", Type = "", Target = "", TargetMode }) => {
      if (tag !== "Relationship") return;
      if (part === relationsOfText) related.add(Target.replace(/^\/word\//, ""));
      if (seen.has(Id)) tell(part, `Two relations have the name “${Id}”.`);
      seen.add(Id);
      const isLink = Type.endsWith("/hyperlink");
      if (!relations.test(Type) || (TargetMode === "External") !== isLink)
        tell(part, `The text is joined with something else: “${Type}”.`);
    });
  }

  /** Whoever opens a document knows its parts by their types and relations alone. */
  function judgeTypes(): void {
    const types = new Map<string, string>();
    parsePart(files, "[Content_Types].xml", (tag, { PartName = "", ContentType = "" }) => {
      if (tag === "Override") types.set(PartName, ContentType);
    });
    for (const name of ["document", "styles", "footnotes", "endnotes", "numbering"]) {
      if (!files[`word/${name}.xml`]) continue;
      const kind = name === "document" ? "document.main" : name;
      if (types.get(`/word/${name}.xml`) !== `${main}${kind}+xml`)
        tell("The document", `It does not say what “${name}.xml” is.`);
      if (name !== "document" && !related.has(`${name}.xml`))
        tell("The document", `Nobody who opens it comes to “${name}.xml”.`);
    }
  }
}
