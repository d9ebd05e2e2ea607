import type { Destination } from "../destination/kinds/kinds.ts";
import { urlOf } from "../destination/url-of.ts";
import type { CheckContext, LinkRule } from "./finding.ts";

/** A link to a file that does not say that it is one. */
export const fileUntold: LinkRule = {
  id: "file-untold",
  title: "A file is not announced",
  severity: "consider",
  source: "WCAG technique G91 and H33 (from memory): type and size of a file are told before it is opened",
  find: (links, { files }) =>
    links.flatMap(({ id, text, description, destination }) => {
      const type = typeOf(destination, files);
      const told = `${text} ${description ?? ""}`.toLowerCase();
      return type === null || told.includes(type)
        ? []
        : [
            {
              subject: id,
              message: `This opens a file. Say so in the words or the description, as in “(${type.toUpperCase()})”.`,
            },
          ];
    }),
};

const announced = /\.(pdf|docx?|odt|xlsx?|ods|pptx?|odp|zip|epub|csv|mp3|mp4)$/i;

/** The ending of the file's name, where it is of a kind that opens another program. */
function typeOf(destination: Destination, files: CheckContext["files"]): string | null {
  const name =
    destination.kind === "web"
      ? urlOf(destination).pathname
      : destination.kind === "file" && "file" in destination
        ? (files.get(destination.file)?.name ?? "")
        : "";
  return announced.exec(name)?.[1]!.toLowerCase() ?? null;
}
