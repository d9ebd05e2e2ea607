/** Longer than a frame lasts: a window that is not shown has none. */
const longestWait = 100;

/** Does what was asked of it last when the next frame has been drawn, so that nothing stands between a key and its letter. */
export class AfterFrame {
  private work: (() => void) | null = null;
  private frame = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  ask(work: () => void): void {
    const waits = this.work !== null;
    this.work = work;
    if (waits) return;
    this.frame = requestAnimationFrame(() => {
      clearTimeout(this.timer);
      this.timer = setTimeout(this.run);
    });
    this.timer = setTimeout(this.run, longestWait);
  }

  forget(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.timer);
    this.work = null;
  }

  private readonly run = (): void => {
    const { work } = this;
    this.forget();
    work?.();
  };
}
