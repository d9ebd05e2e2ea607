import { brackets } from "../readings.ts";

/** How letters are read, as a parser that makes no tree comes by it: in brackets behind them, where a file gives none. */
export class Rubies {
  private base: string | null = null;
  private reading: string | null = null;
  private hasBrackets = false;

  constructor(private readonly tell: (words: string) => void) {}

  /** @param name `ruby`, `rp`, `rt`, or any other */
  begin(name: string): void {
    if (name === "ruby") [this.base, this.hasBrackets] = ["", false];
    if (name === "rp") this.hasBrackets = true;
    if (name === "rt" && this.base !== null && !this.hasBrackets) this.reading = "";
  }

  end(name: string): void {
    if (name === "ruby") this.base = null;
    if (name !== "rt" || this.reading === null) return;
    const [open, close] = brackets(this.base ?? "");
    if (this.reading.trim() !== "") this.tell(open + this.reading + close);
    this.reading = null;
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
