import type { ApiError } from "../api/client";
import { Problem } from "../parts/notice";

/** How something that was sent went: a line where it went well, else what is wrong. */
export function Told({
  done,
  error,
  fields = [],
}: {
  done: string | null;
  error: ApiError | null;
  /** The fields that tell their problems themselves. */
  fields?: readonly string[];
}) {
  return (
    <>
      <p role="status" className="text-sm [overflow-wrap:anywhere]">
        {done}
      </p>
      {error && !fields.includes(error.field ?? "") && <Problem>{error.message}</Problem>}
    </>
  );
}
