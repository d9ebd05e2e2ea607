import { TriangleAlert } from "lucide-react";
import { Link } from "react-router";
import type { ExportListing } from "../api/client";
import { useBook } from "../book-page";
import { fileSize, plural, shownDate } from "../parts/wording";
import { choiceWords, formats } from "./formats/formats";
import { ProofVerdict } from "./proof-verdict";

const link = "underline decoration-edge underline-offset-4 hover:text-blue";

/** One exported file: when, of which text, how large, what it warned of, and what its proof came to. */
export function ExportRow({ one }: { one: ExportListing }) {
  const book = useBook();
  const chosen = choiceWords(one.options);
  const isOlder = one.textAt < book.modifiedAt;
  const isReadable = formats[one.format].Reader !== undefined;
  return (
    <li
      className={`grid items-start gap-x-5 gap-y-1 border-b border-hairline px-5 py-3 last:border-b-0 md:grid-cols-[1fr_18rem_auto] ${one.complete ? "" : "border-l-4 border-l-red bg-red-wash"}`}
    >
      <div className="min-w-0">
        <p className="truncate" title={one.fileName}>
          {one.fileName}
        </p>
        <p className="text-sm text-faint">
          {shownDate(one.createdAt)}, {fileSize(one.size)}, made and proven in {seconds(one.tookMs)}
          {chosen && `, ${chosen}`}
        </p>
        <p className="text-sm text-faint">
          {book.finished ? "Links" : "Text"} after {plural(one.revision, "save")}
          {isOlder && ", changed since"}
        </p>
        {one.walk && (
          <p className={`text-sm ${one.walk.differing.length > 0 ? "text-red" : "text-faint"}`}>
            {plural(one.walk.walked, "link")} walked {shownDate(one.walk.walkedAt)},{" "}
            {one.walk.differing.length === 0
              ? "all as intended"
              : `${one.walk.differing.length} not as intended`}
          </p>
        )}
        {one.warnings.map(({ message, chapter }, i) => (
          <p key={i} className="mt-1 flex items-start gap-1.5 text-sm">
            <TriangleAlert aria-hidden size={14} className="mt-0.5 shrink-0 text-red" />
            <span>
              {chapter !== null && `${chapter}: `}
              {message}
            </span>
          </p>
        ))}
      </div>
      <ProofVerdict proof={one} />
      <div className="flex gap-4">
        {isReadable && (
          <Link to={`/books/${book.id}/read/${one.id}`} className={link}>
            Read
          </Link>
        )}
        <Link to={`/books/${book.id}/export/${one.id}`} className={link}>
          Link proof
        </Link>
        <a href={`/api/books/${book.id}/exports/${one.id}/file`} download={one.fileName} className={link}>
          Download
        </a>
      </div>
    </li>
  );
}

function seconds(ms: number): string {
  return `${(ms / 1000).toFixed(1)} s`;
}
