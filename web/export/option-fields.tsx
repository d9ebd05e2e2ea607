import type { ExportOptions } from "@vennet/core/publish/export-options";
import type { ReactNode } from "react";

/** What is to be chosen for an export of one format. */
export function OptionFields({
  options,
  hasPages,
  onChange,
}: {
  options: ExportOptions;
  /** Whether there is a PDF whose pages an e-book can tell. */
  hasPages: boolean;
  onChange: (to: Partial<ExportOptions>) => void;
}) {
  const { format } = options;
  return (
    <div className="grid gap-3">
      {format === "pdf" && (
        <>
          <Tick
            isOn={options.accessible}
            onChange={(accessible) => onChange({ accessible })}
            hint="Every picture needs a text alternative then."
          >
            Claim PDF/UA-1
          </Tick>
          <label className="grid gap-1">
            <span>Web addresses, for print</span>
            <select
              value={options.addresses}
              onChange={(event) => onChange({ addresses: event.target.value as ExportOptions["addresses"] })}
              className="min-h-8 border border-hairline bg-paper px-1"
            >
              <option value="none">stay behind their words</option>
              <option value="notes">are written out in notes</option>
              <option value="list">are listed at the end</option>
            </select>
          </label>
        </>
      )}
      {format === "epub" && (
        <>
          <Tick
            isOn={options.pageList}
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
            isOn={options.fonts}
            onChange={(fonts) => onChange({ fonts })}
            hint="About 1 MB; readers may still choose their own."
          >
            The book’s letters inside
          </Tick>
        </>
      )}
      {format === "web" && (
        <Tick
          isOn={options.pages === "chapters"}
          onChange={(isOn) => onChange({ pages: isOn ? "chapters" : "one" })}
          hint="A folder (zip) with an index; else all is one page, pictures inside it."
        >
          A page for each chapter
        </Tick>
      )}
      {format !== "epub" && (
        <Tick
          isOn={options.companions === "beside"}
          onChange={(isOn) => onChange({ companions: isOn ? "beside" : "left-out" })}
          hint="Those that links lead to, in a folder (zip) beside it."
        >
          Companion files come along
        </Tick>
      )}
    </div>
  );
}

function Tick({
  isOn,
  onChange,
  hint,
  children,
}: {
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  hint: string;
  children: ReactNode;
}) {
  return (
    <label className="flex items-start gap-2">
      <input
        type="checkbox"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
        className="mt-1 size-4 shrink-0 accent-blue"
      />
      <span>
        {children}
        <span className="block text-sm text-faint">{hint}</span>
      </span>
    </label>
  );
}
