import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { odtLines } from "./opened/text-links.ts";

/** Words are a link that nobody made. */
export const foreignLink: Mutation = {
  name: "a link that the author did not make",
  pages(file, pick) {
    const words = pick(file.find(file.pages, /<p>([A-Za-z ]{3,}?)(?=[<,.])/));
    if (words) file.replace(words, `<p><a href="https://elsewhere.example/">${words.match[1]}</a>`);
    return words !== undefined;
  },
  pdf(file, pick) {
    const page = pick(file.pages());
    if (!page) return false;
    const action = new Map<string, PdfValue>([
      ["S", new PdfName("URI")],
      ["URI", new PdfString("https://elsewhere.example/")],
    ]);
    const made = file.objects.add(
      new Map<string, PdfValue>([
        ["Type", new PdfName("Annot")],
        ["Subtype", new PdfName("Link")],
        ["Rect", [10, 10, 60, 30]],
        ["A", action],
      ]),
    );
    file.setAnnotations(page, [...file.annotationsOf(page), made]);
    return true;
  },
  markdown(file) {
    const path = file.pathOf(/\.md$/)!;
    file.write(path, `${file.text(path)}\n[elsewhere](https://elsewhere.example/)\n`);
    return true;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const run = pick(file.find([path], /<w:r>(?:(?!<w:r>).)*?<w:t[ >].*?<\/w:r>/s));
    if (run) file.replace(run, `<w:hyperlink w:anchor="nowhere">${run.match[0]}</w:hyperlink>`);
    return run !== undefined;
  },
  odt(file, pick) {
    const line = pick(odtLines(file));
    if (line)
      file.replace(
        line,
        `${line.match[1]}<text:a xlink:href="#nowhere">${line.match[2]}</text:a>${line.match[3]}`,
      );
    return line !== undefined;
  },
};
