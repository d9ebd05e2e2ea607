import type { Mutation } from "./mutation.ts";
import { odtLines } from "./opened/text-links.ts";

/** A field of a text document is a link that nobody made. */
export const foreignField: Mutation = {
  name: "a field that leads somewhere",
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const run = pick(file.find([path], /<w:r>(?:(?!<w:r>).)*?<w:t[ >].*?<\/w:r>/s));
    if (!run) return false;
    const code = "HYPERLINK &quot;https://elsewhere.example/&quot;";
    file.replace(run, `<w:fldSimple w:instr="${code}">${run.match[0]}</w:fldSimple>`);
    return true;
  },
  odt(file, pick) {
    const line = pick(odtLines(file));
    if (line)
      file.replace(
        line,
        `${line.match[1]}<text:execute-macro text:name="x">${line.match[2]}</text:execute-macro>${line.match[3]}`,
      );
    return line !== undefined;
  },
};
