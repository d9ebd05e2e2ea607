import { PDFDocument } from "@cantoo/pdf-lib";
import { FinishedError } from "../errors.ts";
import { FileEncryption, wrongPassword } from "./encryption.ts";
import { headerAt, hasSoundTable } from "./object-table.ts";
import { damaged } from "./open-pdf.ts";

/**
 * A PDF, opened so that what is changed in it is appended to it (ISO 32000-1, 7.5.6).
 * @param password with which it opens, or its owner’s; empty where everybody may open it
 * @returns with how it is encrypted, where it is; it is decrypted then
 * @throws FinishedError `format` where it is none, `password` where it opens with another one, `encrypted` where its content is locked
 */
export async function openFinished(
  whole: Uint8Array,
  password = "",
): Promise<{ document: PDFDocument; encryption: FileEncryption | null }> {
  const bytes = whole.subarray(headerAt(whole));
  const asItIs = await load(bytes, { ignoreEncryption: true });
  if (!asItIs.isEncrypted) return { document: asItIs, encryption: null };
  // What would have to be appended then are all its objects, and how they are encrypted with them.
  if (!hasSoundTable(bytes))
    throw new FinishedError(
      "format",
      "This PDF is encrypted, and the table of its objects is damaged. Open it in the program that made it, save it anew, and bring it again.",
    );
  const encryption = encryptionOf(asItIs, password);
  const document = await load(bytes, { password });
  // The library leaves them out of what it decrypts; what is appended is encrypted as the rest is.
  const { Encrypt, ID, Info } = asItIs.context.trailerInfo;
  Object.assign(document.context.trailerInfo, { Encrypt, ID, Info });
  return { document, encryption };
}

/** What the libraries throw at entries that are not what they have to be is told as damage. */
function encryptionOf(document: PDFDocument, password: string): FileEncryption {
  try {
    return FileEncryption.of(document, password);
  } catch (error) {
    throw damaged(error);
  }
}

async function load(
  bytes: Uint8Array,
  how: { ignoreEncryption: true } | { password: string },
): Promise<PDFDocument> {
  try {
    const document = await PDFDocument.load(bytes, {
      forIncrementalUpdate: true,
      updateMetadata: false,
      ...how,
    });
    document.getPageCount();
    return document;
  } catch (error) {
    if ("password" in how && /password/i.test((error as Error).message)) throw wrongPassword(how.password);
    throw damaged(error);
  }
}
