declare module "wcag-contrast" {
  const wcag: { hex: (a: string, b: string) => number };
  export default wcag;
}
