/** The sign before what is to do (☐) or done (☑), which screen readers name. */
export function taskSign(done: boolean): string {
  return done ? "☑" : "☐";
}
