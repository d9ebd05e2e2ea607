declare module "punycode/punycode.es6.js" {
  export function toUnicode(domain: string): string;
}
