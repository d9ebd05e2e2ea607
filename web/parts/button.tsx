import type { ButtonHTMLAttributes } from "react";

const kinds = {
  main: "px-3 bg-blue text-paper border-blue hover:brightness-110 disabled:opacity-60",
  plain:
    "px-3 bg-transparent text-ink border-edge hover:bg-blue-wash disabled:text-faint disabled:border-hairline",
  grave: "px-3 bg-transparent text-red border-red hover:bg-red-wash",
  quiet:
    "border-transparent text-ink underline underline-offset-4 decoration-edge hover:decoration-blue hover:text-blue disabled:text-faint disabled:no-underline px-1",
};

/** A button; `main` for the one thing that a screen is for, `grave` for what cannot be undone. */
export function Button({
  kind = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: keyof typeof kinds }) {
  return (
    <button
      type="button"
      {...rest}
      className={`inline-flex min-h-7 items-center gap-1.5 border py-0.5 text-[0.93rem] ${kinds[kind]} ${className}`}
    />
  );
}
