declare module "commonmark-spec" {
  /** An example of the specification: a text, and the HTML that it stands for. */
  interface Example {
    markdown: string;
    html: string;
    section: string;
    number: number;
  }
  const spec: { text: string; tests: Example[] };
  export default spec;
}
