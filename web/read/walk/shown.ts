/** Tells who waits for it when a reader shows what it was asked for. */
export class Shown<T> {
  private key: string | null = null;
  private view: T | null = null;
  private waiting: { key: string; resolve: (view: T) => void } | null = null;

  /** The reader shows something, which the key names. */
  tell(key: string, view: T): void {
    this.key = key;
    this.view = view;
    if (this.waiting?.key !== key) return;
    this.waiting.resolve(view);
    this.waiting = null;
  }

  /** Something else has been asked for; what is shown is no longer what the key names. */
  forget(): void {
    this.key = null;
  }

  /** Waits until the reader shows it; at once where it does. */
  async of(key: string): Promise<T> {
    // What was just asked for reaches the reader with its next rendering.
    await new Promise((resolve) => setTimeout(resolve));
    if (this.key === key) return this.view!;
    return new Promise((resolve) => (this.waiting = { key, resolve }));
  }
}
