import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { strToU8, zipSync } from "fflate";

// Writes the documents with which an author can try bringing in: one as programs that write text documents write them, with
// fields, bookmarks, numbered headings, counted captions, notes, a text box, a formula and what is set off; one in
// OpenDocument; and an e-book that tells the pages of its print edition.
//   node demo/example-documents.mjs

const folder = join(import.meta.dirname, "../web/public/examples");
const picture = readFileSync(join(import.meta.dirname, "manuscript/pictures/monks-path.png"));
const pack = (name, files) =>
  writeFileSync(
    join(folder, name),
    zipSync(
      Object.fromEntries(
        Object.entries(files).map(([path, content]) => [
          path,
          [
            typeof content === "string" ? strToU8(content) : content,
            { level: path === "mimetype" ? 0 : 6, mtime: new Date(1980, 0, 1) },
          ],
        ]),
      ),
    ),
  );
const xml = (root) => `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n${root}`;

const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const word = `xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="${office}" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture" xmlns:v="urn:schemas-microsoft-com:vml" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"`;
const t = (words, look = "") =>
  `<w:r>${look && `<w:rPr>${look}</w:rPr>`}<w:t xml:space="preserve">${words}</w:t></w:r>`;
const p = (content, style = "", more = "") =>
  `<w:p>${style || more ? `<w:pPr>${style && `<w:pStyle w:val="${style}"/>`}${more}</w:pPr>` : ""}${content}</w:p>`;
const mark = (kind) => `<w:r><w:fldChar w:fldCharType="${kind}"/></w:r>`;
const field = (instruction, result) =>
  `${mark("begin")}<w:r><w:instrText xml:space="preserve"> ${instruction} </w:instrText></w:r>${mark("separate")}${result}${mark("end")}`;
let bookmarks = 0;
const place = (name, content) =>
  `<w:bookmarkStart w:id="${++bookmarks}" w:name="${name}"/>${content}<w:bookmarkEnd w:id="${bookmarks}"/>`;
const link = (id, words, tip = "") =>
  `<w:hyperlink r:id="${id}"${tip && ` w:tooltip="${tip}"`}>${t(words, '<w:rStyle w:val="Hyperlink"/>')}</w:hyperlink>`;
const note = (id) =>
  `<w:r><w:rPr><w:vertAlign w:val="superscript"/></w:rPr><w:footnoteReference w:id="${id}"/></w:r>`;
const entry = (name, words, page) =>
  p(
    `<w:hyperlink w:anchor="${name}">${t(words)}<w:r><w:tab/></w:r>${field(`PAGEREF ${name} \\h`, t(page))}</w:hyperlink>`,
  );
const cell = (content, more = "") => `<w:tc><w:tcPr>${more}</w:tcPr>${p(content)}</w:tc>`;
const m = (words) => `<m:r><m:t>${words}</m:t></m:r>`;
const emu = (pixels) => pixels * 9525;

const body = [
  p(t("The Fleet Sands Crossing"), "Title"),
  p(
    `${mark("begin")}<w:r><w:instrText xml:space="preserve"> TOC \\o "1-2" \\h </w:instrText></w:r>${mark("separate")}<w:hyperlink w:anchor="_Toc1">${t("Before you go")}<w:r><w:tab/></w:r>${field("PAGEREF _Toc1 \\h", t("1"))}</w:hyperlink>`,
  ),
  entry("_Toc2", "The hours", "1"),
  entry("_Toc3", "The way", "2"),
  p(mark("end")),
  p(place("_Toc1", t("Before you go")), "Heading1"),
  p(
    [
      t("Ask "),
      link("office", "the tide office", "Hours of low water, day by day"),
      t(" first, or write to "),
      field(
        'HYPERLINK "mailto:warden@causeways.example?subject=Fleet%20Sands" \\o "The warden of the crossing"',
        t("the warden"),
      ),
      t(". Nobody crosses alone"),
      place("_RefNote", note(1)),
      t("; see "),
      field("REF _Ref1 \\h", t("The way")),
      t(" on page "),
      field("PAGEREF _Ref1 \\h", t("2")),
      t(", and section "),
      field("REF _Toc2 \\r \\h", t("1.1")),
      t(", "),
      // Some programs let references be words that no press follows.
      field("REF _Toc2", t("The hours")),
      t("."),
    ].join(""),
  ),
  p(place("_Toc2", t("The hours")), "Heading2"),
  p(
    [
      t("The causeway lies bare twice a day, as "),
      field("REF _Ref2 \\h", t("Table 1")),
      t(" has it. "),
      t("Marée basse", '<w:lang w:val="fr-FR"/>'),
      t(", say the oyster boats."),
    ].join(""),
  ),
  p(
    place("_Ref2", t("Table ") + field("SEQ Table \\* ARABIC", t("1"))) + t(": How long it lies bare"),
    "Caption",
  ),
  `<w:tbl><w:tblPr><w:tblW w:w="0" w:type="auto"/></w:tblPr><w:tblGrid><w:gridCol w:w="3000"/><w:gridCol w:w="3000"/></w:tblGrid><w:tr><w:trPr><w:tblHeader/></w:trPr>${cell(t("Bare, by the post"), '<w:gridSpan w:val="2"/>')}</w:tr><w:tr>${cell(t("First post"))}${cell(t("four hours"))}</w:tr><w:tr>${cell(t("Fifth post"))}${cell(`<w:hyperlink w:anchor="fifth_post">${t("two hours")}</w:hyperlink>`)}</w:tr></w:tbl>`,
  p(place("_Toc3", place("_Ref1", t("The way"))), "Heading1"),
  p(
    [
      t("Keep to the posts. "),
      place("fifth_post", t("The fifth post")),
      t(" is white; behind it the sand is soft"),
      note(2),
      t(", and "),
      `<w:del w:id="90" w:author="A. Pell"><w:r><w:delText>deep</w:delText></w:r></w:del>`,
      t("wet. The same is said of the first"),
      field("NOTEREF _RefNote \\h", t("1")),
      t("."),
    ].join(""),
  ),
  p(
    `<w:r><w:drawing><wp:inline><wp:extent cx="${emu(480)}" cy="${emu(300)}"/><wp:docPr id="1" name="Map" descr="The monks’ path over the sands"><a:hlinkClick r:id="map"/></wp:docPr><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:pic><pic:nvPicPr><pic:cNvPr id="1" name="map.png"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed="picture"/><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="${emu(480)}" cy="${emu(300)}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`,
  ),
  p(t("Figure ") + field("SEQ Figure \\* ARABIC", t("1")) + t(": The path"), "Caption"),
  p(
    `<w:r><w:pict><v:shape style="width:200pt;height:60pt"><v:textbox><w:txbxContent>${p(t("In fog: ") + link("bell", "listen for the bell"))}</w:txbxContent></v:textbox></v:shape></w:pict></w:r>`,
  ),
  p(t("“Go early, come back early.”"), "Quote"),
  p(
    t("How long it lies bare: ") +
      `<m:oMath>${m("t")}${m("=")}<m:f><m:num>${m("h")}</m:num><m:den><m:sSub><m:e>${m("v")}</m:e><m:sub>${m("0")}</m:sub></m:sSub></m:den></m:f></m:oMath>`,
  ),
  p(t("White the post and soft the sand,"), "Verse"),
  p(t("five by five and home to land."), "Verse"),
  p(t("Turn back when the fourth post stands in water."), "Notice"),
].join("");

const rel = (id, type, target, mode = "") =>
  `<Relationship Id="${id}" Type="${office}/${type}" Target="${target}"${mode && ` TargetMode="${mode}"`}/>`;
const rels = (...all) =>
  xml(
    `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${all.join("")}</Relationships>`,
  );
const style = (id, name, more = "") =>
  `<w:style w:type="paragraph" w:styleId="${id}"><w:name w:val="${name}"/>${more}</w:style>`;

pack("fleet-sands-crossing.docx", {
  "[Content_Types].xml": xml(
    '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml"/><Override PartName="/word/footnotes.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.footnotes+xml"/><Override PartName="/word/numbering.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.numbering+xml"/></Types>',
  ),
  "_rels/.rels": rels(rel("d", "officeDocument", "word/document.xml")),
  "word/document.xml": xml(`<w:document ${word}><w:body>${body}</w:body></w:document>`),
  "word/_rels/document.xml.rels": rels(
    rel("styles", "styles", "styles.xml"),
    rel("notes", "footnotes", "footnotes.xml"),
    rel("numbers", "numbering", "numbering.xml"),
    rel("picture", "image", "media/map.png"),
    rel("office", "hyperlink", "https://tides.hesterley.example/today", "External"),
    rel("bell", "hyperlink", "https://causeways.example/bell", "External"),
    rel("map", "hyperlink", "https://maps.hesterley.example/fleet-sands", "External"),
  ),
  "word/styles.xml": xml(
    `<w:styles ${word}><w:docDefaults><w:rPrDefault><w:rPr><w:lang w:val="en-GB"/></w:rPr></w:rPrDefault></w:docDefaults>${style("Title", "Title")}${style("Heading1", "heading 1", '<w:pPr><w:numPr><w:numId w:val="1"/></w:numPr><w:outlineLvl w:val="0"/></w:pPr>')}${style("Heading2", "heading 2", '<w:pPr><w:numPr><w:ilvl w:val="1"/><w:numId w:val="1"/></w:numPr><w:outlineLvl w:val="1"/></w:pPr>')}${style("Caption", "caption")}${style("Quote", "Quote")}${style("Verse", "Verse")}${style("Notice", "Notice")}<w:style w:type="character" w:styleId="Hyperlink"><w:name w:val="Hyperlink"/><w:rPr><w:u w:val="single"/></w:rPr></w:style></w:styles>`,
  ),
  "word/footnotes.xml": xml(
    `<w:footnotes ${word}><w:footnote w:id="1">${p(t("Two walkers make a party."))}</w:footnote><w:footnote w:id="2">${p(t("It was firm when the monks went over it."))}</w:footnote></w:footnotes>`,
  ),
  "word/numbering.xml": xml(
    `<w:numbering ${word}><w:abstractNum w:abstractNumId="0"><w:multiLevelType w:val="multilevel"/>${["%1", "%1.%2"].map((text, i) => `<w:lvl w:ilvl="${i}"><w:start w:val="1"/><w:numFmt w:val="decimal"/><w:pStyle w:val="Heading${i + 1}"/><w:lvlText w:val="${text}"/></w:lvl>`).join("")}</w:abstractNum><w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num></w:numbering>`,
  ),
  "word/media/map.png": picture,
});

const urn = "urn:oasis:names:tc:opendocument:xmlns";
const odf = `xmlns:office="${urn}:office:1.0" xmlns:text="${urn}:text:1.0" xmlns:table="${urn}:table:1.0" xmlns:draw="${urn}:drawing:1.0" xmlns:style="${urn}:style:1.0" xmlns:svg="${urn}:svg-compatible:1.0" xmlns:fo="${urn}:xsl-fo-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:manifest="${urn}:manifest:1.0"`;
const line = (content, name = "") => `<text:p${name && ` text:style-name="${name}"`}>${content}</text:p>`;
const heading = (level, content) => `<text:h text:outline-level="${level}">${content}</text:h>`;
const to = (href, words, more = "") =>
  `<text:a xlink:type="simple" xlink:href="${href}"${more}>${words}</text:a>`;

pack("oyster-ground.odt", {
  mimetype: "application/vnd.oasis.opendocument.text",
  "META-INF/manifest.xml": xml(
    `<manifest:manifest ${odf} manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.text"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/><manifest:file-entry manifest:full-path="Pictures/map.png" manifest:media-type="image/png"/></manifest:manifest>`,
  ),
  "content.xml": xml(
    `<office:document-content ${odf} office:version="1.3"><office:body><office:text>${[
      heading(1, "Oyster Ground"),
      line(
        `Ask ${to("https://tides.hesterley.example/today", "the tide office", ' office:title="Hours of low water"')}, see ${to("#The%20beds|outline", "the beds")}, and ${to("#gate", "the gate")}<text:note text:id="n1" text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body>${line("Shut at night.")}</text:note-body></text:note>.`,
      ),
      heading(2, "The beds"),
      line(
        `They lie beyond <text:bookmark-start text:name="gate"/>the gate<text:bookmark-end text:name="gate"/>, as <text:sequence-ref text:ref-name="refFigure0" text:reference-format="category-and-value">Figure 1</text:sequence-ref> shows; more on page <text:bookmark-ref text:ref-name="gate" text:reference-format="page">1</text:bookmark-ref>.`,
      ),
      line(
        `<draw:frame draw:name="Map" svg:width="12cm" svg:height="7.5cm"><draw:image xlink:href="Pictures/map.png"/><svg:desc>The beds and the gate</svg:desc><draw:image-map><draw:area-rectangle xlink:href="https://maps.hesterley.example/beds" svg:x="1cm" svg:y="1cm" svg:width="4cm" svg:height="3cm"><svg:title>The beds on the map</svg:title></draw:area-rectangle></draw:image-map></draw:frame>`,
      ),
      line(
        'Figure <text:sequence text:ref-name="refFigure0" text:name="Figure" style:num-format="1">1</text:sequence>: The beds',
      ),
    ].join("")}</office:text></office:body></office:document-content>`,
  ),
  "Pictures/map.png": picture,
});

const page = (title, content) =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE html>\n<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="en" xml:lang="en"><head><title>${title}</title></head><body>${content}</body></html>`;
const begins = (number) =>
  `<span epub:type="pagebreak" role="doc-pagebreak" id="page${number}" aria-label="${number}"></span>`;
const pagesOfPrint = [
  ["north", 1],
  ["north", 2],
  ["bells", 3],
];
const texts = {
  north: page(
    "The North Shore",
    `<h1>The North Shore</h1>${begins(1)}<blockquote epub:type="epigraph"><p>Wait for the second bell.</p></blockquote><p>Ask <a href="https://tides.hesterley.example/today" title="Hours of low water">the tide office</a><a epub:type="noteref" href="#n1" id="r1">1</a>. The fog bells are told in <a href="bells.xhtml">a chapter of their own</a>, and ${begins(2)}the map shows them.</p><p><img src="map.png" alt="The north shore with its bells"/></p><aside epub:type="footnote" id="n1"><p>It is shut at night.</p></aside>`,
  ),
  bells: page(
    "The Bells",
    `${begins(3)}<h1>The Bells</h1><dl><dt>Near bell</dt><dd>Every ten seconds, as on <a href="north.xhtml#page2">page 2</a>.</dd><dt>Far bell</dt><dd id="far">Every minute; the <a href="https://causeways.example/bell">warden</a> rings it by hand.</dd></dl>`,
  ),
};
const opf = `<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="en"><metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:uuid:4be1ad0e-5b33-4a0e-9c1f-1d5f1e1f0a01</dc:identifier><dc:title>Fog Bells of the Sound</dc:title><dc:creator>Pell Arrandine</dc:creator><dc:language>en</dc:language><meta property="dcterms:modified">2026-01-01T00:00:00Z</meta></metadata><manifest><item id="nav" href="nav.xhtml" properties="nav" media-type="application/xhtml+xml"/><item id="map" href="map.png" media-type="image/png"/>${Object.keys(
  texts,
)
  .map((name) => `<item id="${name}" href="${name}.xhtml" media-type="application/xhtml+xml"/>`)
  .join("")}</manifest><spine>${Object.keys(texts)
  .map((name) => `<itemref idref="${name}"/>`)
  .join("")}</spine></package>`;

pack("fog-bells.epub", {
  mimetype: "application/epub+zip",
  "META-INF/container.xml": xml(
    '<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>',
  ),
  "EPUB/package.opf": xml(opf),
  "EPUB/nav.xhtml": page(
    "Contents",
    `<nav epub:type="toc"><ol><li><a href="north.xhtml">The North Shore</a></li><li><a href="bells.xhtml">The Bells</a></li></ol></nav><nav epub:type="page-list" hidden=""><ol>${pagesOfPrint.map(([name, number]) => `<li><a href="${name}.xhtml#page${number}">${number}</a></li>`).join("")}</ol></nav>`,
  ),
  ...Object.fromEntries(Object.entries(texts).map(([name, text]) => [`EPUB/${name}.xhtml`, text])),
  "EPUB/map.png": picture,
});

const list = [
  { name: "a text document (DOCX)", file: "fleet-sands-crossing.docx" },
  { name: "an OpenDocument text (ODT)", file: "oyster-ground.odt" },
  { name: "an e-book (EPUB)", file: "fog-bells.epub" },
];
writeFileSync(join(folder, "list.json"), `${JSON.stringify(list, null, 2)}\n`);
