/** A link of an exported file that leads out of it. */
export interface OutwardLink {
  /** What a screen reader is told of it. */
  name: string;
  /** An address, or a path of the exported folder. */
  address: string;
}
