import { rememberedShown } from "../remembered-shown";

/** Whether anchors show a mark. */
export const useAnchorMarks = rememberedShown("vennet-anchor-marks", true);
