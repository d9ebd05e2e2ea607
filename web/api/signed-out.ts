import { create } from "zustand";

/** Whether the server has said that nobody is signed in, on a page that somebody had opened: from another window, or after a long time. */
export const useSignedOut = create(() => false);
