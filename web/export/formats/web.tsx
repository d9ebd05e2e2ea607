import { webOptions, type WebOptions } from "@vennet/core/publish/formats/web/options";
import { FontsForm } from "../fonts-form";
import { later } from "../../parts/later";
import type { FieldsProps, FormatOnScreen } from "./format-on-screen";
import { CompanionsTick, companionWords, Tick } from "./tick";

export const web: FormatOnScreen<WebOptions> = {
  name: "Web page",
  action: "Export web page",
  about: "Works from a disk, in the dark, and without script.",
  options: webOptions,
  Fields: WebFields,
  words: (chosen) => [
    chosen.pages === "chapters" ? "a page for each chapter" : "one page",
    companionWords(chosen),
  ],
  Settings: FontsForm,
  Reader: later("Opening the file", async () => (await import("../../read/flow-export")).WebExport),
  Found: later("Opening the file", async () => (await import("../found-in-flow")).FoundInWeb),
};

function WebFields({ chosen, onChange }: FieldsProps<WebOptions>) {
  return (
    <>
      <Tick
        isOn={chosen.pages === "chapters"}
        onChange={(isOn) => onChange({ pages: isOn ? "chapters" : "one" })}
        hint="A folder (zip) with an index; else all is one page, pictures inside it."
      >
        A page for each chapter
      </Tick>
      <CompanionsTick chosen={chosen} onChange={onChange} />
    </>
  );
}
