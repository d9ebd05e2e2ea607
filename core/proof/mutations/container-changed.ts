import type { Mutation } from "./mutation.ts";
import type { OpenContainer } from "./opened/open-container.ts";

type Change = (file: OpenContainer) => void;

const replace =
  (path: string, pattern: RegExp, by: string): Change =>
  (file) => {
    if (file.files.has(path)) file.write(path, file.text(path).replace(pattern, by));
  };
const more =
  (path: string, text: string): Change =>
  (file) =>
    file.write(path, text);

const ofEpub = [
  more("META-INF/encryption.xml", "<encryption/>"),
  more("META-INF/rights.xml", "<rights/>"),
  more("mimetype", "application/zip"),
  more("EPUB/other.css", "a { display: none }"),
  replace("META-INF/container.xml", /(<rootfile [^>]*\/>)/, "$1$1"),
];
const ofDocx = [
  more("word/vbaProject.bin", "x"),
  more("word/header9.xml", "<w:hdr/>"),
  replace(
    "docProps/app.xml",
    /<\/Properties>|<Properties([^>]*)\/>/,
    "<Properties$1><HyperlinkBase>https://elsewhere.example/</HyperlinkBase></Properties>",
  ),
  replace("[Content_Types].xml", /document\.main/, "template.main"),
  replace("word/settings.xml", /<\/w:settings>/, '<w:documentProtection w:edit="forms"/></w:settings>'),
  replace("word/styles.xml", /<w:rPr>/, "<w:rPr><w:vanish/>"),
  replace("word/styles.xml", /<w:rPr>/, '<w:rPr><w:sz w:val="2"/>'),
];
const ofOdt = [
  more("Basic/script.xml", "<x/>"),
  more("mimetype", "application/zip"),
  replace(
    "meta.xml",
    /<\/office:meta>/,
    '<meta:auto-reload xlink:href="https://elsewhere.example/"/></office:meta>',
  ),
  replace("styles.xml", /<style:text-properties /, '<style:text-properties text:display="none" '),
  replace("styles.xml", /<style:text-properties /, '<style:text-properties fo:color="#ffffff" '),
  replace("META-INF/manifest.xml", /<manifest:file-entry [^>]*"content\.xml"[^>]*\/>/, ""),
];

/** What says something of all its pages, or of all its words. */
export const containerChanged: Mutation = {
  name: "a file of the container changed or added",
  epub: (file, pick) => changed(file, pick(ofEpub)!),
  docx: (file, pick) => changed(file, pick(ofDocx)!),
  odt: (file, pick) => changed(file, pick(ofOdt)!),
};

function changed(file: OpenContainer, change: Change): boolean {
  change(file);
  return true;
}
