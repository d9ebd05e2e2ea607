import { brackets } from "../readings.ts";

/** How letters are read, as a parser that makes no tree comes by it: in brackets behind them, where a file gives none. */
export class Rubies {
  private base: string | null = null;
  private reading: string | null = null;
  private hasBrackets = false;
  /** A reading that stands before its letters, with its brackets when these are known. */
  private early: string | null = null;

  constructor(private readonly tell: (words: string) => void) {}

  /** @param name `ruby`, `rp`, `rt`, or any other */
  begin(name: string): void {
    if (name === "ruby") [this.base, this.hasBrackets] = ["", false];
    if (name === "rp") this.hasBrackets = true;
    if (name === "rt" && this.base !== null && !this.hasBrackets) this.reading = "";
  }

  end(name: string): void {
    if (name === "rt" && this.base === "") [this.early, this.reading] = [this.reading, null];
    if (name === "rt" && this.reading !== null) this.tellReading(this.reading);
    if (name === "rt") this.reading = null;
    if (name !== "ruby") return;
    if (this.early !== null) this.tellReading(this.early);
    [this.base, this.early] = [null, null];
  }

  private tellReading(reading: string): void {
    if (reading.trim() !== "") this.tell(brackets(this.base ?? "").join(reading));
  }

  text(words: string): void {
    if (this.reading !== null) {
      this.reading += words;
      return;
    }
    if (this.base !== null) this.base += words;
    this.tell(words);
  }
}
