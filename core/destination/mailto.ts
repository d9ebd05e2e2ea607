import { percentDecoded } from "./percent-decoded.ts";

/** A message as a `mailto:` address describes it: what the reader's mail program opens with. */
export interface MailMessage {
  to: string[];
  cc: string[];
  bcc: string[];
  subject: string;
  /** The first lines of the message, divided by `\n`. */
  body: string;
  /** Header fields besides these, kept as they came. */
  other: [name: string, value: string][];
}

/** An empty message. */
export function emptyMessage(): MailMessage {
  return { to: [], cc: [], bcc: [], subject: "", body: "", other: [] };
}

/**
 * Reads a `mailto:` address (RFC 6068). Header names are taken without regard to case, recipients in a
 * `to` field are put to those of the path, and what is not valid percent-encoding is kept as it stands.
 */
export function readMailto(address: string): MailMessage {
  const message = emptyMessage();
  const [, path = "", query = ""] = /^(?:mailto:)?([^?]*)\??(.*)$/is.exec(address.replace(/#.*$/s, "")) ?? [];
  message.to.push(...recipients(path));
  for (const field of query.split("&")) {
    if (field === "") continue;
    const at = field.indexOf("=");
    const name = percentDecoded(at === -1 ? field : field.slice(0, at));
    const raw = at === -1 ? "" : field.slice(at + 1);
    switch (name.toLowerCase()) {
      case "to":
      case "cc":
      case "bcc":
        message[name.toLowerCase() as "to" | "cc" | "bcc"].push(...recipients(raw));
        break;
      case "subject":
        message.subject = percentDecoded(raw).replace(/[\r\n]+/g, " ");
        break;
      case "body":
        message.body = percentDecoded(raw).replace(/\r\n?/g, "\n");
        break;
      default:
        message.other.push([name, percentDecoded(raw)]);
    }
  }
  return message;
}

/**
 * Writes a `mailto:` address (RFC 6068): recipients divided by commas, blanks as `%20`, line breaks of
 * the body as `%0D%0A`. Empty fields are left out.
 */
export function writeMailto(message: MailMessage): string {
  const fields: [string, string][] = [];
  for (const name of ["cc", "bcc"] as const)
    if (message[name].length > 0) fields.push([name, message[name].map(encodeRecipient).join(",")]);
  if (message.subject !== "") fields.push(["subject", encodeURIComponent(message.subject)]);
  if (message.body !== "") fields.push(["body", encodeURIComponent(message.body.replace(/\r?\n/g, "\r\n"))]);
  for (const [name, value] of message.other)
    fields.push([encodeURIComponent(name), encodeURIComponent(value)]);
  const query = fields.map(([name, value]) => `${name}=${value}`).join("&");
  return `mailto:${message.to.map(encodeRecipient).join(",")}${query === "" ? "" : "?" + query}`;
}

/** Divides a line of recipients, as an author types them, at commas, semicolons and blanks. */
export function splitRecipients(line: string): string[] {
  return line.split(/[,;\s]+/).filter(Boolean);
}

function recipients(raw: string): string[] {
  // A comma that belongs to an address is percent-encoded, so this comes before decoding.
  return raw
    .split(",")
    .map((part) => percentDecoded(part).trim())
    .filter(Boolean);
}

function encodeRecipient(address: string): string {
  const at = address.lastIndexOf("@");
  if (at === -1) return encodeURIComponent(address);
  const local = encodeURIComponent(address.slice(0, at)).replace(/%2B/g, "+");
  return `${local}@${encodeURIComponent(address.slice(at + 1))}`;
}
