import { useEffect, useId, useRef } from "react";

/** A field for files of the author's. @param given files that were dropped elsewhere and belong into it */
export function FileField({
  label,
  hint,
  given,
  onFiles,
  ...rest
}: {
  name: string;
  label: string;
  hint?: string;
  accept?: string;
  multiple?: boolean;
  given?: readonly File[];
  onFiles?: (files: File[]) => void;
}) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!given || !input.current) return;
    const all = new DataTransfer();
    for (const file of given) all.items.add(file);
    input.current.files = all.files;
  }, [given]);
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-faint">
        {label}
      </label>
      <input
        ref={input}
        id={id}
        type="file"
        {...rest}
        aria-describedby={hint ? `${id}-about` : undefined}
        onChange={(event) => onFiles?.([...(event.target.files ?? [])])}
        className="mt-1 w-full file:mr-3 file:border file:border-edge file:bg-transparent file:px-3 file:py-0.5 file:text-ink"
      />
      {hint && (
        <p id={`${id}-about`} className="mt-0.5 text-sm text-faint">
          {hint}
        </p>
      )}
    </div>
  );
}
