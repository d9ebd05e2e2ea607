import { strFromU8 } from "fflate";
import type { Fault } from "../../../proof/exported-link.ts";
import { FaultList } from "../../../proof/fault-list.ts";
import { parsePart } from "../../../proof/xml-part.ts";
import { judgeTag } from "./read-markup.ts";

type Files = Record<string, Uint8Array>;

const textType = "application/vnd.oasis.opendocument.text";
const manifest = "META-INF/manifest.xml";
const parts =
  /^(mimetype|content\.xml|styles\.xml|meta\.xml|META-INF\/manifest\.xml|Pictures\/[^/]+|Object \d+\/content\.xml|Fonts\/[^/]+)$|\/$/;

/**
 * Looks through the parts of an OpenDocument text beside its text for what may keep readers from its words and links, or
 * lead them elsewhere: all that is not known to leave them as they are (OpenDocument 1.3, part 2: 3 and 4; part 3: 4 and 16).
 * @throws ProofError where a part cannot be read
 */
export function auditOdt(files: Files): Fault[] {
  const faults = new FaultList();
  const tell = faults.tell.bind(faults);
  for (const part of ["styles.xml", "meta.xml"])
    if (files[part])
      parsePart(files, part, (tag, attributes) => {
        const why = judgeTag(part, tag, attributes);
        if (why !== null) tell(part, why);
      });
  for (const name of Object.keys(files))
    if (!parts.test(name)) tell("The document", `“${name}” is no part of a text.`);
  if (strFromU8(files["mimetype"] ?? new Uint8Array()) !== textType)
    tell("The document", "It does not say that it is a text.");
  const listed = new Map<string, string>();
  parsePart(files, manifest, (tag, { "manifest:full-path": path = "", "manifest:media-type": type = "" }) => {
    if (tag === "manifest:file-entry") listed.set(path, type);
    else if (tag !== "manifest:manifest") tell(manifest, `By “${tag}” a part may not be read.`);
  });
  for (const name of Object.keys(files))
    if (!/^(mimetype|META-INF\/.*)$|\/$/.test(name) && !listed.has(name))
      tell(manifest, `It does not list “${name}”.`);
  for (const [path, type] of listed) {
    if (!path.endsWith("/") && !files[path]) tell(manifest, `“${path}” is not in the document.`);
    if (path === "/" && type !== textType) tell(manifest, "It does not say that the document is a text.");
    if (/\.xml$/.test(path) && type !== "text/xml") tell(manifest, `“${path}” is said to be “${type}”.`);
  }
  return faults.all;
}
