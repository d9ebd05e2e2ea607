import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";

/** Something that went wrong, where it went wrong, with what to do about it. */
export function Problem({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div role="alert" className="flex items-start gap-2 border-l-4 border-red bg-red-wash px-3 py-2">
      <TriangleAlert aria-hidden size={17} className="mt-0.5 shrink-0 text-red" />
      <div className="min-w-0 grow whitespace-pre-line [overflow-wrap:anywhere]">{children}</div>
      {action && <div className="shrink-0">{action}</div>}
    </div>
  );
}

/** What stands in a place while its content is on its way. */
export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="p-6 text-faint">
      {what} …
    </p>
  );
}
