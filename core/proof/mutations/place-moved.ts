import type { PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { anchorsInUse, bookmarksInUse, odtPlacesInUse } from "./opened/text-links.ts";

/** What leads there lands on another text. */
export const placeMoved: Mutation = {
  name: "a place moved to other words",
  pages(file, pick) {
    const places = file.find(file.pages, /<(?:h\d|p|span|figcaption|aside)\b[^>]* id="([^"]+)"/);
    const used = new Set(file.ownLinks().map(({ href }) => href.split("#")[1]));
    const one = pick(places.filter(({ match }) => used.has(match[1])));
    const other = pick(
      places.filter(
        ({ match, path, start }) =>
          path === one?.path && match[1] !== one.match[1] && Math.abs(start - one.start) > 200,
      ),
    );
    if (!one || !other) return false;
    file.swap(one, other, ({ match }, from) => match[0].replace(match[1]!, () => from.match[1]!));
    return true;
  },
  pdf(file, pick) {
    const { list, write } = file.names();
    const at = pick(file.namesInUse());
    if (at === undefined) return false;
    const [page, how, left, top] = file.objects.read(list[at + 1]) as PdfValue[];
    write(list.with(at + 1, [page!, how!, left ?? 0, Number(top ?? 0) > 400 ? 60 : 780, null]));
    return true;
  },
  markdown(file, pick) {
    const path = file.pathOf(/\.md$/)!;
    const place = pick(anchorsInUse(file));
    if (!place) return false;
    file.replace(place, "");
    file.write(path, `${file.text(path)}\n${place.match[0]}The end of it all.\n`);
    return true;
  },
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const place = pick(bookmarksInUse(file));
    if (!place) return false;
    file.replace(place, "");
    const end = `<w:p>${place.match[0]}<w:r><w:t>The end of it all.</w:t></w:r></w:p>`;
    file.write(
      path,
      file.text(path).replace("<w:sectPr", () => `${end}<w:sectPr`),
    );
    return true;
  },
  odt(file, pick) {
    const path = file.pathOf(/content\.xml$/)!;
    const place = pick(odtPlacesInUse(file));
    if (!place) return false;
    file.replace(place, "");
    const end = `<text:p>${place.match[0]}The end of it all.</text:p></office:text>`;
    file.write(
      path,
      file.text(path).replace("</office:text>", () => end),
    );
    return true;
  },
};
