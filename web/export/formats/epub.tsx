import { epubOptions, type EpubOptions } from "@vennet/core/publish/formats/epub/options";
import { FontsForm } from "../fonts-form";
import { later } from "../../parts/later";
import type { FieldsProps, FormatOnScreen } from "./format-on-screen";
import { Tick } from "./tick";

export const epub: FormatOnScreen<EpubOptions> = {
  name: "E-book",
  action: "Export EPUB",
  about:
    "EPUB 3.3 with one file a chapter, cover, navigation, linked notes, the companion files inside, and what it says about its accessibility.",
  options: epubOptions,
  Fields: EpubFields,
  words: ({ fonts, pageList }) => [fonts && "Literata inside", !pageList && "without page numbers"],
  Settings: FontsForm,
  Reader: later("Opening the file", async () => (await import("../../read/flow-export")).EpubExport),
  Found: later("Opening the file", async () => (await import("../found-in-flow")).FoundInEpub),
};

function EpubFields({ chosen, hasPages, onChange }: FieldsProps<EpubOptions>) {
  return (
    <>
      <Tick
        isOn={chosen.pageList}
        onChange={(pageList) => onChange({ pageList })}
        hint={
          hasPages
            ? "Where the pages of the last PDF begin, so that both editions can be cited alike."
            : "Once a PDF has been exported: its pages are what the e-book tells."
        }
      >
        Page numbers of the PDF
      </Tick>
      <Tick
        isOn={chosen.fonts}
        onChange={(fonts) => onChange({ fonts })}
        hint="About 1 MB, where the text is in no font of yours: those are inside anyway. Readers may still choose their own."
      >
        Literata inside
      </Tick>
    </>
  );
}
