import { PDFDocument, PDFHexString, PDFName } from "@cantoo/pdf-lib";
import { expect, test } from "@jest/globals";
import { addressOfBytes, addressText } from "./address-text.ts";
import { proveSaved } from "./prove-saved.ts";
import { readFinishedPdf } from "./read-finished.ts";
import { saveFinishedPdf } from "./save-finished.ts";

const names = { files: new Map<string, string>(), places: new Map<string, string>() };

test("an address is ASCII, else UTF-8, else Latin-1, whoever tells its bytes", () => {
  for (const [hex, address] of [
    ["682f78", "h/x"],
    ["682fe28093", "h/–"],
    ["682ffc", "h/ü"],
  ] as const) {
    const bytes = Uint8Array.from(Buffer.from(hex, "hex"));
    expect(addressText(bytes)).toBe(address);
    expect(addressOfBytes(Buffer.from(bytes).toString("latin1"))).toBe(address);
  }
  expect(addressOfBytes("h/–")).toBe("h/–");
});

test("a link whose address has other bytes than ASCII is told as it leads, and is proven when it is described", async () => {
  const document = await PDFDocument.create();
  const page = document.addPage([400, 600]);
  const { context } = document;
  const action = context.obj({ S: "URI" });
  const address = Buffer.from("https://sands.hesterley.example/low–water");
  action.set(PDFName.of("URI"), PDFHexString.of(address.toString("hex")));
  const link = context.obj({ Type: "Annot", Subtype: "Link", Rect: [10, 10, 90, 30], F: 4 });
  link.set(PDFName.of("A"), action);
  page.node.set(PDFName.of("Annots"), context.obj([context.register(link)]));
  const bytes = await document.save();
  const { pages } = await readFinishedPdf(bytes);
  const [read] = pages[0]!.links;
  expect(read!.destination).toEqual({
    kind: "web",
    address: "https://sands.hesterley.example/low%E2%80%93water",
  });
  const asked = [{ ...pages[0]!, links: [{ ...read!, description: "Low water" }] }];
  const saved = await saveFinishedPdf(bytes, asked, names);
  expect(await proveSaved(bytes, saved.bytes, asked, names)).toMatchObject({ complete: true });
});
