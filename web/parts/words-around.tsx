import type { ReactNode } from "react";

/** Words around of this length were cut off. */
const cut = 40;

/** What was found in a text, with the words before and behind it. */
export function WordsAround({
  before,
  after,
  children,
}: {
  before: string;
  after: string;
  children: ReactNode;
}) {
  return (
    <>
      <span className="font-serif text-faint">
        {before.length >= cut && "…"}
        {before}
      </span>
      {children}
      <span className="font-serif text-faint">
        {after}
        {after.length >= cut && "…"}
      </span>
    </>
  );
}
