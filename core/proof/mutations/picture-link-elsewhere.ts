import type { Mutation } from "./mutation.ts";

/** A press on the picture leads elsewhere than the link around it. */
export const pictureLinkElsewhere: Mutation = {
  name: "a linked picture that leads elsewhere by itself",
  docx(file, pick) {
    const path = file.pathOf(/word\/document\.xml$/)!;
    const own = pick(file.find([path], /(<a:hlinkClick [^>]*r:id=")([^"]*)"/));
    const other = pick(
      file.find([path], /<w:hyperlink [^>]*r:id="([^"]*)"/).filter(({ match }) => match[1] !== own?.match[2]),
    );
    if (!own || !other) return false;
    file.replace(own, `${own.match[1]}${other.match[1]}"`);
    return true;
  },
};
