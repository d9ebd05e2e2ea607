/** Escapes text for XML content, and for double-quoted attributes of one line. Controls that XML 1.0 forbids are left out. */
export function escapeXml(text: string): string {
  return text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "")
    .replace(/&/g, "&amp;")
    .replace(/</g, "&lt;")
    .replace(/>/g, "&gt;")
    .replace(/"/g, "&quot;");
}

/** Escapes text for a double-quoted attribute, in which other blanks than spaces would be read as such (XML 1.0, 3.3.3). */
export function attributeXml(text: string): string {
  return escapeXml(text).replace(/[\t\n\r]/g, (blank) => `&#${blank.charCodeAt(0)};`);
}
