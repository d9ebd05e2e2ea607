import { useId, type InputHTMLAttributes } from "react";

/** A labelled text field with room for a hint and for what is wrong with it. */
export function Field({
  label,
  hint,
  problem,
  className = "",
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: string; problem?: string | null }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm text-faint">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={problem ? true : undefined}
        aria-describedby={hint || problem ? `${id}-about` : undefined}
        {...rest}
        className="w-full border-b border-edge bg-transparent px-0.5 py-1 aria-invalid:border-red"
      />
      {(problem || hint) && (
        <p id={`${id}-about`} className={`mt-0.5 text-sm ${problem ? "text-red" : "text-faint"}`}>
          {problem ?? hint}
        </p>
      )}
    </div>
  );
}
