import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/kinds/kinds.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { anchorNamedTwice } from "./anchor-named-twice.ts";
import { lookAlikeHost } from "./look-alike-host.ts";
import { ownHeading } from "./own-heading.ts";
import { pictureUntold } from "./picture-untold.ts";
import { plainHttp } from "./plain-http.ts";
import { sessionPart } from "./session-part.ts";
import { shortAddress } from "./short-address.ts";
import { trackingPart } from "./tracking-part.ts";
import { typeUntrue } from "./type-untrue.ts";
import { certificateEnds } from "./certificate-ends.ts";
import { pageChanged } from "./page-changed.ts";
import { addressWithoutScheme } from "./address-without-scheme.ts";
import { twoSchemes } from "./two-schemes.ts";
import { addressTail } from "./address-tail.ts";
import { credentials } from "./credentials.ts";
import { ownNetwork } from "./own-network.ts";
import { unknownTopLevel } from "./unknown-top-level.ts";
import { mixedScripts } from "./mixed-scripts.ts";
import { mailForm } from "./mail-form.ts";
import { longAddress } from "./long-address.ts";
import { saysNothing } from "./says-nothing.ts";
import { thinWords } from "./thin-words.ts";
import { longWords } from "./long-words.ts";
import { sameWords } from "./same-words.ts";
import { neighbours } from "./neighbours.ts";
import { otherAddressShown } from "./other-address-shown.ts";
import { fileUntold } from "./file-untold.ts";
import { outerBlank } from "./outer-blank.ts";
import { descriptionLacking } from "./description-lacking.ts";
import { descriptionRepeats } from "./description-repeats.ts";
import { frameFaint } from "./frame-faint.ts";
import { anchorUnused } from "./anchor-unused.ts";
import { captionAlone } from "./caption-alone.ts";
import { filePlaceGone } from "./file-place-gone.ts";
import { fileDeadEnds } from "./file-dead-ends.ts";
import { fileGone } from "./file-gone.ts";
import { fileNotBrought } from "./file-not-brought.ts";
import { destinationBroken } from "./destination-broken.ts";
import { destinationGuarded } from "./destination-guarded.ts";
import { destinationMoved } from "./destination-moved.ts";
import { destinationUnsure } from "./destination-unsure.ts";
import { fileForeign } from "./file-foreign.ts";
import { fileLarge } from "./file-large.ts";
import { byWayOf } from "./by-way-of.ts";
import { cannotBeFollowed } from "./cannot-be-followed.ts";
import { landsOnBlank } from "./lands-on-blank.ts";
import { outsideStructure } from "./outside-structure.ts";
import { hotspotSmall } from "./hotspot-small.ts";
import { httpsAnswers } from "./https-answers.ts";
import { mailSlip } from "./mail-slip.ts";
import { shareTooNarrow } from "./share-too-narrow.ts";
import {
  answerOf,
  type CheckContext,
  type Finding,
  type Found,
  type LinkAlone,
  type LinkRule,
  type Rule,
} from "./finding.ts";
import { hotspotOverlap } from "./hotspot-overlap.ts";
import { ownLook } from "./own-look.ts";
import { looksLikeText } from "./looks-like-text.ts";
import { noName } from "./no-name.ts";
import { noteAlone } from "./note-alone.ts";
import { noteGone } from "./note-gone.ts";
import { pageUnwritten } from "./page-unwritten.ts";
import { placeGone } from "./place-gone.ts";
import { rawAddress } from "./raw-address.ts";
import { referenceGap } from "./reference-gap.ts";
import { signpostsEmpty } from "./signposts-empty.ts";

/** Every rule, in the order in which findings are listed. */
export const rules: Rule[] = [
  credentials,
  twoSchemes,
  addressWithoutScheme,
  addressTail,
  sessionPart,
  ownNetwork,
  unknownTopLevel,
  mixedScripts,
  mailForm,
  mailSlip,
  destinationBroken,
  destinationMoved,
  pageChanged,
  shareTooNarrow,
  fileGone,
  filePlaceGone,
  fileDeadEnds,
  fileNotBrought,
  placeGone,
  landsOnBlank,
  cannotBeFollowed,
  referenceGap,
  noteGone,
  noteAlone,
  signpostsEmpty,
  captionAlone,
  pageUnwritten,
  noName,
  otherAddressShown,
  lookAlikeHost,
  typeUntrue,
  saysNothing,
  thinWords,
  outerBlank,
  pictureUntold,
  frameFaint,
  hotspotOverlap,
  hotspotSmall,
  destinationGuarded,
  destinationUnsure,
  certificateEnds,
  httpsAnswers,
  plainHttp,
  shortAddress,
  byWayOf,
  trackingPart,
  rawAddress,
  looksLikeText,
  ownLook,
  sameWords,
  neighbours,
  ownHeading,
  fileUntold,
  fileLarge,
  fileForeign,
  longWords,
  longAddress,
  descriptionLacking,
  outsideStructure,
  descriptionRepeats,
  anchorUnused,
  anchorNamedTwice,
];

/** What the rules, or some of them, find in one chapter, rule by rule. */
export function checkChapter(doc: Node, context: CheckContext, which: readonly Rule[] = rules): Finding[] {
  const links = linkUses(doc);
  const answers = links.map((link) => answerOf(link, context));
  const alone = foundAtEach(links, which);
  const byId = new Map(links.map((use) => [use.id, use]));
  const foundBy = (rule: Rule): readonly Found[] => {
    if ("findInChapter" in rule) return rule.findInChapter(doc, links, context);
    if ("find" in rule) return alone.get(rule) ?? none;
    const found: Found[] = [];
    for (let i = 0; i < links.length; i++) {
      const message = rule.findInBook(links[i]!, context, answers[i]);
      if (message !== null) found.push({ subject: links[i]!.id, message });
    }
    return found;
  };
  const findings: Finding[] = [];
  for (const rule of which) {
    const said = new Set<string>();
    for (const { subject, message } of foundBy(rule)) {
      const use = byId.get(subject);
      const onceFor = use && rule.onceFor?.(use, context);
      if (onceFor) {
        if (said.has(onceFor)) continue;
        said.add(onceFor);
      }
      const mended = rule.mend && use;
      findings.push({
        rule: rule.id,
        severity: rule.severity,
        subject,
        message,
        mend: mended ? rule.mend!(mended, context) : null,
        isSure: mended ? (rule.isSure?.(mended, context) ?? true) : false,
        ...(onceFor ? { onceFor } : {}),
      });
    }
  }
  return findings;
}

const none: readonly never[] = [];

/** What rules find that look at a link by itself, at all links, by rule. */
function foundAtEach(
  links: readonly LinkUse[],
  which: readonly Rule[],
): ReadonlyMap<LinkRule, readonly Found[]> {
  const found = new Map<LinkRule, Found[]>();
  const some = which.filter((rule) => "find" in rule);
  for (const link of links) {
    for (const { rule, message } of which === rules ? knownAlone(link) : foundAlone(link, some)) {
      const list = found.get(rule);
      if (list) list.push({ subject: link.id, message });
      else found.set(rule, [{ subject: link.id, message }]);
    }
  }
  return found;
}

interface FoundAlone {
  rule: LinkRule;
  message: string;
}

function foundAlone(link: LinkAlone, which: readonly LinkRule[]): readonly FoundAlone[] {
  let found: FoundAlone[] | null = null;
  for (const rule of which) {
    const message = rule.find(link);
    if (message !== null) (found ??= []).push({ rule, message });
  }
  return found ?? none;
}

const linkRules = rules.filter((rule) => "find" in rule);
/** What all rules found at a link by itself, by its destination, an object that an edit elsewhere leaves as it is. */
const known = new WeakMap<Destination, { link: LinkAlone; found: readonly FoundAlone[] }>();

/** What all rules find at a link by itself, judged again only when it has changed. */
function knownAlone(link: LinkAlone): readonly FoundAlone[] {
  const last = known.get(link.destination);
  if (last && isSame(last.link, link)) return last.found;
  const found = foundAlone(link, linkRules);
  known.set(link.destination, { link, found });
  return found;
}

function isSame(a: LinkAlone, b: LinkAlone): boolean {
  return (
    a === b ||
    (a.text === b.text &&
      a.on === b.on &&
      a.description === b.description &&
      a.asText === b.asText &&
      a.look === b.look)
  );
}
