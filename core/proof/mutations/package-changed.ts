import type { Mutation } from "./mutation.ts";

/** What an e-book's package may say that changes which of its pages readers come to, and how. */
const changes: readonly [pattern: RegExp, by: string][] = [
  [/<\/metadata>/, '<meta property="rendition:layout">pre-paginated</meta></metadata>'],
  [/<\/package>/, '<bindings><mediaType handler="x" media-type="y"/></bindings></package>'],
  [/(<item [^>]*xhtml[^>]*)\/>/, '$1 media-overlay="x"/>'],
  [/(<itemref [^>]*\/>)/, "$1$1"],
  [/ properties="nav"/, ""],
  [/href="style.css"/, 'href="https://elsewhere.example/style.css"'],
  [/(idref="chapter-\d+")/, '$1 properties="page-spread-left"'],
  [/(<item id="chapter-\d+" href="[^"]*" media-type=")[^"]*/, "$1text/html"],
];

/** Readers' programs open the book in another way. */
export const packageChanged: Mutation = {
  name: "a package that says something else of its pages",
  epub(file, pick) {
    const path = file.pathOf(/package\.opf$/)!;
    const text = file.text(path);
    const [pattern, by] = pick(changes.filter(([one]) => one.test(text)))!;
    file.write(path, text.replace(pattern, by));
    return true;
  },
};
