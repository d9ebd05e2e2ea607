/** The words that a book's apparatus needs, in its language. */
export interface ApparatusWords {
  figure: string;
  table: string;
  page: string;
  above: string;
  below: string;
  notes: string;
  contents: string;
  questions: string;
  figures: string;
  tables: string;
  places: string;
  /** Pages outside the reading order. */
  companions: string;
  /** The list of page numbers. */
  pages: string;
  cover: string;
  addresses: string;
  backToText: string;
  newWindow: string;
  fileInside: string;
}
