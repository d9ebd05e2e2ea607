import type { Node } from "prosemirror-model";
import { linkUses } from "../manuscript/links.ts";
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
import { cannotBeFollowed } from "./cannot-be-followed.ts";
import { landsOnBlank } from "./lands-on-blank.ts";
import { outsideStructure } from "./outside-structure.ts";
import { hotspotSmall } from "./hotspot-small.ts";
import { httpsAnswers } from "./https-answers.ts";
import { mailSlip } from "./mail-slip.ts";
import { shareTooNarrow } from "./share-too-narrow.ts";
import type { CheckContext, Finding, Rule } from "./finding.ts";
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
  const byId = new Map(links.map((use) => [use.id, use]));
  return which.flatMap((rule) => {
    const all = "find" in rule ? rule.find(links, context) : rule.findInChapter(doc, links, context);
    const said = new Set<string>();
    return all.flatMap((found): Finding[] => {
      const use = byId.get(found.subject);
      const onceFor = use && rule.onceFor?.(use, context);
      if (onceFor) {
        if (said.has(onceFor)) return [];
        said.add(onceFor);
      }
      const mended = rule.mend && use;
      return [
        {
          rule: rule.id,
          severity: rule.severity,
          ...found,
          mend: mended ? rule.mend!(mended, context) : null,
          isSure: mended ? (rule.isSure?.(mended, context) ?? true) : false,
          ...(onceFor ? { onceFor } : {}),
        },
      ];
    });
  });
}
