import { docxLinks, odtLinks } from "./opened/text-links.ts";
import type { Mutation } from "./mutation.ts";

/** Elements of HTML in which nothing is shown, is shown at once, or leads anywhere. */
const ofPages = [
  ["<details><summary>More</summary>", "</details>"],
  ["<template>", "</template>"],
  ["<noscript>", "</noscript>"],
  ["<textarea>", "</textarea>"],
  ["<select><option>", "</option></select>"],
  ["<canvas>", "</canvas>"],
  ["<video>", "</video>"],
  ["<ruby>x<rp>", "</rp></ruby>"],
  ["<datalist>", "</datalist>"],
  ['<span popover="auto">', "</span>"],
  ['<span contenteditable="true">', "</span>"],
  ["<marquee>", "</marquee>"],
  ['<svg xmlns="http://www.w3.org/2000/svg"><defs>', "</defs></svg>"],
] as const;

const ofDocx = [
  ["<w:sdt><w:sdtPr><w:showingPlcHdr/></w:sdtPr><w:sdtContent>", "</w:sdtContent></w:sdt>"],
  ['<w:smartTag w:uri="x" w:element="y">', "</w:smartTag>"],
  ['<w:fldSimple w:instr=" QUOTE ">', "</w:fldSimple>"],
  ['<mc:AlternateContent><mc:Choice Requires="wps"/><mc:Fallback>', "</mc:Fallback></mc:AlternateContent>"],
  [
    '<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText> IF 1 = 2 </w:instrText></w:r>',
    '<w:r><w:fldChar w:fldCharType="end"/></w:r>',
  ],
] as const;

const ofOdt = [
  ["<office:annotation><text:p>", "</text:p></office:annotation>"],
  ["<text:ruby><text:ruby-base>x</text:ruby-base><text:ruby-text>", "</text:ruby-text></text:ruby>"],
  ['<text:placeholder text:placeholder-type="text">', "</text:placeholder>"],
  ['<text:meta-field xml:id="x">', "</text:meta-field>"],
  ["<draw:frame><draw:text-box>", "</draw:text-box></draw:frame>"],
] as const;

/** What is in it may not be seen, or takes no press. */
export const elementAroundLink: Mutation = {
  name: "a link in an element that may hide it",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    const [before, after] = pick(ofPages)!;
    if (link) file.replace(link, before + link.match[0] + after);
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file));
    const [before, after] = pick(ofDocx)!;
    if (link) file.replace(link, before + link.match[0] + after);
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file));
    const [before, after] = pick(ofOdt)!;
    if (link) file.replace(link, before + link.match[0] + after);
    return link !== undefined;
  },
};
