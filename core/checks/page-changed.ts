import { keptCopyOf, type KnownAnswer, type BookRule } from "./finding.ts";

/** A page that answers and is no longer what it was when it was linked. */
export const pageChanged: BookRule = {
  id: "page-changed",
  title: "A page is no longer what was linked",
  severity: "fix",
  source: "common practice: links rot in two ways, the page goes or its content does",
  findInBook: (_link, _context, answer) =>
    answer?.change && (answer.state === "sound" || answer.state === "moved")
      ? `${said(answer.change)} Say that it is still right, or give another address.`
      : null,
  isSure: () => false,
  mend: (link, context) => {
    const file = keptCopyOf(link, context);
    return file === null ? null : { destination: { kind: "file", file } };
  },
};

function said({ what, then, now }: NonNullable<KnownAnswer["change"]>): string {
  const isRenamed = then.title && now.title && then.title !== now.title;
  const called = isRenamed ? `: “${now.title!}” in place of “${then.title!}”` : "";
  if (what === "part") return "The part of the page that is linked says something else now.";
  if (what === "hands") return `The page is another in all, so that others may have its name now${called}.`;
  return `The page says something else than when it was linked${called}.`;
}
