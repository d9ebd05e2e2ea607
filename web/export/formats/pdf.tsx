import { pdfOptions, type PdfOptions } from "@vennet/core/publish/formats/pdf/options";
import { layoutWords } from "../layout-words";
import { FontsForm } from "../fonts-form";
import { PagesForm } from "../pages-form";
import { later } from "../../parts/later";
import type { FieldsProps, FormatOnScreen } from "./format-on-screen";
import { CompanionsTick, companionWords, Tick } from "./tick";

export const pdf: FormatOnScreen<PdfOptions> = {
  name: "PDF",
  action: "Export PDF",
  about:
    "Pages with cover page, contents list, outline and page numbers, tagged for screen readers; for screens, or for print with addresses written out.",
  options: pdfOptions,
  Fields: PdfFields,
  words: (chosen) => [
    !chosen.accessible && "without the PDF/UA-1 claim",
    chosen.addresses === "notes" && "addresses in notes",
    chosen.addresses === "list" && "addresses listed at the end",
    chosen.layout ? layoutWords(chosen.layout) : false,
    companionWords(chosen),
  ],
  Settings: PdfSettings,
  // They bring the reader of PDFs with them.
  Reader: later("Opening the file", async () => (await import("../../read/pdf-export")).PdfExport),
  Found: later("Opening the file", async () => (await import("../found-in-pdf")).FoundInPdf),
};

function PdfSettings() {
  return (
    <>
      <PagesForm />
      <FontsForm />
    </>
  );
}

function PdfFields({ chosen, onChange }: FieldsProps<PdfOptions>) {
  return (
    <>
      <Tick
        isOn={chosen.accessible}
        onChange={(accessible) => onChange({ accessible })}
        hint="Every picture needs a text alternative then."
      >
        Claim PDF/UA-1
      </Tick>
      <label className="grid gap-1">
        <span>Web addresses, for print</span>
        <select
          value={chosen.addresses}
          onChange={(event) => onChange({ addresses: event.target.value as PdfOptions["addresses"] })}
          className="min-h-8 border border-hairline bg-paper px-1"
        >
          <option value="none">stay behind their words</option>
          <option value="notes">are written out in notes</option>
          <option value="list">are listed at the end</option>
        </select>
      </label>
      <CompanionsTick chosen={chosen} onChange={onChange} />
    </>
  );
}
