import type { Mutation } from "./mutation.ts";

/** What a script does with links nobody knows. */
export const scriptAdded: Mutation = {
  name: "a script",
  pages(file, pick) {
    const path = pick(file.pages);
    if (path !== undefined)
      file.write(
        path,
        file.text(path).replace("</head>", () => "<script>document.links[0].remove()</script></head>"),
      );
    return path !== undefined;
  },
  markdown(file) {
    const path = file.pathOf(/\.md$/)!;
    file.write(path, `${file.text(path)}\n<script>document.links[0].remove()</script>\n`);
    return true;
  },
};
