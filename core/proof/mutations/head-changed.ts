import type { Mutation } from "./mutation.ts";

const heads = [
  '<meta http-equiv="Content-Security-Policy" content="sandbox"/>',
  '<meta name="viewport" content="width=1"/>',
  '<link rel="stylesheet" href="https://elsewhere.example/x.css"/>',
  '<link rel="stylesheet" href="data:text/css,a%7Bdisplay:none%7D"/>',
  '<link rel="preload" href="https://elsewhere.example/x.js"/>',
];

/** Readers' programs do with the page what its text does not tell. */
export const headChanged: Mutation = {
  name: "a page that asks readers’ programs for something",
  pages(file, pick) {
    const page = pick(file.pages)!;
    file.write(
      page,
      file.text(page).replace("</head>", () => `${pick(heads)!}</head>`),
    );
    return true;
  },
};
