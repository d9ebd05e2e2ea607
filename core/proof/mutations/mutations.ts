import type { Mutation } from "./mutation.ts";
import { addressChanged } from "./address-changed.ts";
import { addressesSwapped } from "./addresses-swapped.ts";
import { alternateWordsOnLink } from "./alternate-words-on-link.ts";
import { annotationTwice } from "./annotation-twice.ts";
import { areaEmptied } from "./area-emptied.ts";
import { areaNameDropped } from "./area-name-dropped.ts";
import { areaShapeDropped } from "./area-shape-dropped.ts";
import { areaShifted } from "./area-shifted.ts";
import { areaTwoWays } from "./area-two-ways.ts";
import { areaTakesNoPress } from "./area-takes-no-press.ts";
import { areasSwapped } from "./areas-swapped.ts";
import { aroundAriaHidden } from "./around-aria-hidden.ts";
import { aroundClipped } from "./around-clipped.ts";
import { aroundInert } from "./around-inert.ts";
import { aroundNotShown } from "./around-not-shown.ts";
import { baseAddress } from "./base-address.ts";
import { buttonOver } from "./button-over.ts";
import { contentsEntryDropped } from "./contents-entry-dropped.ts";
import { contentsEntryElsewhere } from "./contents-entry-elsewhere.ts";
import { contentsEntryRenamed } from "./contents-entry-renamed.ts";
import { descriptionAdded } from "./description-added.ts";
import { descriptionChanged } from "./description-changed.ts";
import { descriptionRemoved } from "./description-removed.ts";
import { elementOverPage } from "./element-over-page.ts";
import { eventAttribute } from "./event-attribute.ts";
import { eventOnPage } from "./event-on-page.ts";
import { fileDropped } from "./file-dropped.ts";
import { fileOfOtherBytes } from "./file-of-other-bytes.ts";
import { flagHidden } from "./flag-hidden.ts";
import { flagNoView } from "./flag-no-view.ts";
import { foreignField } from "./foreign-field.ts";
import { foreignLink } from "./foreign-link.ts";
import { furtherActions } from "./further-actions.ts";
import { htmlAroundLink } from "./html-around-link.ts";
import { jumpElsewhere } from "./jump-elsewhere.ts";
import { jumpIntoNothing } from "./jump-into-nothing.ts";
import { launchAction } from "./launch-action.ts";
import { layerOff } from "./layer-off.ts";
import { linkAndWordsDropped } from "./link-and-words-dropped.ts";
import { linkAriaHidden } from "./link-aria-hidden.ts";
import { linkAsCode } from "./link-as-code.ts";
import { linkCut } from "./link-cut.ts";
import { linkDeletedInRevision } from "./link-deleted-in-revision.ts";
import { linkDropped } from "./link-dropped.ts";
import { linkEscaped } from "./link-escaped.ts";
import { linkHidden } from "./link-hidden.ts";
import { linkInComment } from "./link-in-comment.ts";
import { linkInert } from "./link-inert.ts";
import { linkInvisible } from "./link-invisible.ts";
import { linkNotShown } from "./link-not-shown.ts";
import { linkOfNoLetters } from "./link-of-no-letters.ts";
import { linkOfOtherRole } from "./link-of-other-role.ts";
import { linkOffScreen } from "./link-off-screen.ts";
import { linkOver } from "./link-over.ts";
import { linkTakesNoPress } from "./link-takes-no-press.ts";
import { linkTransparent } from "./link-transparent.ts";
import { linkWidened } from "./link-widened.ts";
import { linkWithoutKeys } from "./link-without-keys.ts";
import { nameOfWayBackDropped } from "./name-of-way-back-dropped.ts";
import { nameReplaced } from "./name-replaced.ts";
import { nextAction } from "./next-action.ts";
import { noteDropped } from "./note-dropped.ts";
import { noteMarkDropped } from "./note-mark-dropped.ts";
import { noteMarkElsewhere } from "./note-mark-elsewhere.ts";
import { noteRoleDropped } from "./note-role-dropped.ts";
import { noteTextsSwapped } from "./note-texts-swapped.ts";
import { openingAction } from "./opening-action.ts";
import { outOfReadingOrder } from "./out-of-reading-order.ts";
import { outOfStructure } from "./out-of-structure.ts";
import { outlineEntryDropped } from "./outline-entry-dropped.ts";
import { outlineEntryElsewhere } from "./outline-entry-elsewhere.ts";
import { outlineEntryRenamed } from "./outline-entry-renamed.ts";
import { pageLabelsChanged } from "./page-labels-changed.ts";
import { pageLeadsAway } from "./page-leads-away.ts";
import { pageListElsewhere } from "./page-list-elsewhere.ts";
import { pageListEntryDropped } from "./page-list-entry-dropped.ts";
import { pageOutOfReadingOrder } from "./page-out-of-reading-order.ts";
import { pagesSwapped } from "./pages-swapped.ts";
import { pictureLinkElsewhere } from "./picture-link-elsewhere.ts";
import { pictureWordsDropped } from "./picture-words-dropped.ts";
import { placeMoved } from "./place-moved.ts";
import { placeRemoved } from "./place-removed.ts";
import { placeTwice } from "./place-twice.ts";
import { quadrilateralsMoved } from "./quadrilaterals-moved.ts";
import { rectangleMoved } from "./rectangle-moved.ts";
import { rectangleOfNoSize } from "./rectangle-of-no-size.ts";
import { rectangleOffPage } from "./rectangle-off-page.ts";
import { rectanglesSwapped } from "./rectangles-swapped.ts";
import { ruleHidesLinks } from "./rule-hides-links.ts";
import { ruleLaysOver } from "./rule-lays-over.ts";
import { ruleLettersOfNoSize } from "./rule-letters-of-no-size.ts";
import { ruleTakesNoPress } from "./rule-takes-no-press.ts";
import { scriptAdded } from "./script-added.ts";
import { scriptAddress } from "./script-address.ts";
import { shapeOver } from "./shape-over.ts";
import { shapeOverArea } from "./shape-over-area.ts";
import { signpostDropped } from "./signpost-dropped.ts";
import { signpostElsewhere } from "./signpost-elsewhere.ts";
import { structureParentDropped } from "./structure-parent-dropped.ts";
import { taggedOtherwise } from "./tagged-otherwise.ts";
import { targetInside } from "./target-inside.ts";
import { textNoteOver } from "./text-note-over.ts";
import { wayBackDropped } from "./way-back-dropped.ts";
import { wayOnDropped } from "./way-on-dropped.ts";
import { wayOnElsewhere } from "./way-on-elsewhere.ts";
import { wayOnRenamed } from "./way-on-renamed.ts";
import { waysBackSwapped } from "./ways-back-swapped.ts";
import { windowChanged } from "./window-changed.ts";
import { wordsChanged } from "./words-changed.ts";
import { wordsHidden } from "./words-hidden.ts";
import { attributeOnLink } from "./attribute-on-link.ts";
import { chapterAside } from "./chapter-aside.ts";
import { containerChanged } from "./container-changed.ts";
import { elementAroundLink } from "./element-around-link.ts";
import { fileAdded } from "./file-added.ts";
import { headChanged } from "./head-changed.ts";
import { linkTwoWays } from "./link-two-ways.ts";
import { packageChanged } from "./package-changed.ts";
import { pageDropped } from "./page-dropped.ts";
import { pageEntryAdded } from "./page-entry-added.ts";
import { paintedOver } from "./painted-over.ts";
import { paintedUnseen } from "./painted-unseen.ts";
import { pictureDropped } from "./picture-dropped.ts";
import { ruleOnLinks } from "./rule-on-links.ts";
import { styleOnLink } from "./style-on-link.ts";

/** Every damage that a proof is tried with: the rows of the kill table. */
export const mutations: readonly Mutation[] = [
  linkDropped,
  linkAndWordsDropped,
  addressChanged,
  addressesSwapped,
  wordsChanged,
  linkCut,
  linkWidened,
  foreignLink,
  foreignField,
  descriptionRemoved,
  descriptionChanged,
  descriptionAdded,
  nameReplaced,
  jumpElsewhere,
  jumpIntoNothing,
  placeRemoved,
  placeMoved,
  placeTwice,
  linkNotShown,
  linkInvisible,
  linkTakesNoPress,
  linkTransparent,
  linkOfNoLetters,
  linkOffScreen,
  linkAriaHidden,
  linkHidden,
  linkInert,
  linkWithoutKeys,
  linkOfOtherRole,
  eventAttribute,
  aroundInert,
  aroundAriaHidden,
  aroundNotShown,
  aroundClipped,
  ruleHidesLinks,
  ruleTakesNoPress,
  ruleLaysOver,
  ruleLettersOfNoSize,
  elementOverPage,
  scriptAdded,
  eventOnPage,
  scriptAddress,
  baseAddress,
  pageLeadsAway,
  windowChanged,
  areaEmptied,
  areaShapeDropped,
  areasSwapped,
  areaShifted,
  areaTwoWays,
  areaTakesNoPress,
  shapeOverArea,
  areaNameDropped,
  pictureLinkElsewhere,
  pictureWordsDropped,
  noteMarkElsewhere,
  noteMarkDropped,
  noteTextsSwapped,
  noteDropped,
  wayBackDropped,
  waysBackSwapped,
  nameOfWayBackDropped,
  noteRoleDropped,
  contentsEntryElsewhere,
  wayOnElsewhere,
  wayOnDropped,
  wayOnRenamed,
  contentsEntryDropped,
  contentsEntryRenamed,
  pageListElsewhere,
  pageListEntryDropped,
  signpostElsewhere,
  signpostDropped,
  outlineEntryElsewhere,
  outlineEntryDropped,
  outlineEntryRenamed,
  pageOutOfReadingOrder,
  pagesSwapped,
  fileOfOtherBytes,
  fileDropped,
  rectangleMoved,
  rectangleOffPage,
  rectangleOfNoSize,
  rectanglesSwapped,
  quadrilateralsMoved,
  textNoteOver,
  buttonOver,
  shapeOver,
  linkOver,
  flagHidden,
  flagNoView,
  layerOff,
  annotationTwice,
  nextAction,
  furtherActions,
  openingAction,
  launchAction,
  outOfStructure,
  structureParentDropped,
  taggedOtherwise,
  outOfReadingOrder,
  alternateWordsOnLink,
  pageLabelsChanged,
  linkInComment,
  linkAsCode,
  linkEscaped,
  htmlAroundLink,
  wordsHidden,
  linkDeletedInRevision,
  targetInside,
  attributeOnLink,
  chapterAside,
  containerChanged,
  elementAroundLink,
  fileAdded,
  headChanged,
  linkTwoWays,
  packageChanged,
  pageDropped,
  pageEntryAdded,
  paintedOver,
  paintedUnseen,
  pictureDropped,
  ruleOnLinks,
  styleOnLink,
];
