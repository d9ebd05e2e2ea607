import type { Mutation } from "./mutation.ts";

/** What a link stands on is not seen. */
export const pictureDropped: Mutation = {
  name: "a picture left out",
  pages(file, pick) {
    const picture = pick([...file.files.keys()].filter((path) => /\.(png|jpg|gif)$/.test(path)));
    return picture !== undefined && file.files.delete(picture);
  },
};
