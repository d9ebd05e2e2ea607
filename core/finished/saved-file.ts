/** What was done to links. */
export interface LinksDone {
  added: number;
  changed: number;
  removed: number;
}

/** A file with its links as they were to be. */
export interface SavedFile extends LinksDone {
  bytes: Uint8Array;
}
