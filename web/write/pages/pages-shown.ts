import { rememberedShown } from "../remembered-shown";

/** Whether the set pages stand beside the text. */
export const usePagesShown = rememberedShown("vennet-pages-beside", false);
