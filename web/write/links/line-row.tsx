import { useId } from "react";

/** One labelled field of the link line. */
export function LineRow({
  label,
  value,
  onChange,
  rows,
  serif = false,
  autoFocus = false,
  describedBy,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  rows?: number;
  serif?: boolean;
  autoFocus?: boolean;
  describedBy?: string | undefined;
}) {
  const id = useId();
  const common = {
    id,
    value,
    autoFocus,
    "aria-describedby": describedBy,
    className: `w-full min-w-0 border-b border-hairline bg-transparent outline-none focus:border-blue ${serif ? "font-serif" : ""}`,
  };
  return (
    <div className="mt-1 flex items-baseline gap-3 pr-3">
      <label htmlFor={id} className="w-20 shrink-0 text-right text-sm text-faint">
        {label}
      </label>
      {rows ? (
        <textarea {...common} rows={rows} onChange={(event) => onChange(event.target.value)} />
      ) : (
        <input {...common} autoComplete="off" onChange={(event) => onChange(event.target.value)} />
      )}
    </div>
  );
}
