/** A piece of a job's work: the whole of it where `part` is empty. The same piece is never waiting twice. */
export interface Piece {
  jobId: string;
  part: string;
  /** What is lower comes first; equal ones in the order in which they were added. */
  priority: number;
  /** For whom it is done, by whom turns are shared. */
  owner: string;
}

/** What brings waiting pieces of work to whoever does them. */
export interface WorkQueue {
  /** Begins to hand pieces out. One that fails is handed out again. */
  start(work: (piece: Piece) => Promise<void>): void;
  add(pieces: readonly Piece[]): Promise<void>;
  /** Hands out nothing more, and waits for what is under way. */
  close(): Promise<void>;
}
