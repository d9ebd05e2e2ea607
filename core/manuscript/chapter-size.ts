/** So large is a chapter at most as JSON in UTF-8, in bytes: what is larger cannot be saved. */
export const largestChapter = 4 * 1024 * 1024;
