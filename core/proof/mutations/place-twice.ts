import { PdfName } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { anchorsInUse, bookmarksInUse, odtPlacesInUse } from "./opened/text-links.ts";

/** Readers lead to the first of two equal names. */
export const placeTwice: Mutation = {
  name: "a place of the same name before the true one",
  pages(file, pick) {
    const used = new Set(file.ownLinks().map(({ href }) => href.split("#")[1]));
    const place = pick(file.find(file.pages, / id="([^"]+)"/).filter(({ match }) => used.has(match[1])));
    if (!place) return false;
    const text = file.text(place.path);
    file.write(
      place.path,
      text.replace(/<body[^>]*>/, (body) => `${body}<p${place.match[0]}>Not here.</p>`),
    );
    return true;
  },
  pdf(file, pick) {
    const { list, write } = file.names();
    const at = pick(file.namesInUse());
    const page = file.pages()[0];
    if (at === undefined || !page) return false;
    write(list.toSpliced(at, 0, list[at]!, [page.ref, new PdfName("XYZ"), 0, 40, null]));
    return true;
  },
  markdown(file, pick) {
    const path = file.pathOf(/\.md$/)!;
    const place = pick(anchorsInUse(file));
    if (place) file.write(path, `${place.match[0]}Not here.\n\n${file.text(path)}`);
    return place !== undefined;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const place = pick(bookmarksInUse(file));
    if (!place) return false;
    const decoy = `<w:p>${place.match[0].replace(/w:id="\d+"/, 'w:id="99999"')}<w:r><w:t>Not here.</w:t></w:r></w:p>`;
    file.write(
      path,
      file.text(path).replace("<w:body>", () => `<w:body>${decoy}`),
    );
    return true;
  },
  odt(file, pick) {
    const path = file.pathOf(/content\.xml$/)!;
    const place = pick(odtPlacesInUse(file));
    if (!place) return false;
    const decoy = `<office:text><text:p>${place.match[0]}Not here.</text:p>`;
    file.write(
      path,
      file.text(path).replace("<office:text>", () => decoy),
    );
    return true;
  },
};
