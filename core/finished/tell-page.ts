/** Told how many pages of how many are done. */
export type TellPage = (page: number, of: number) => void;
