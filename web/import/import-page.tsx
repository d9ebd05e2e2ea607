import { useNavigate } from "react-router";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { BringIn } from "./bring-in";

/** Where a manuscript is brought into a book that exists already. */
export function ImportPage() {
  const book = useBook();
  const navigate = useNavigate();
  return (
    <PageFrame book={book}>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-3xl px-6 py-6">
          <h1 className="font-serif text-3xl font-semibold">Bring in chapters</h1>
          <BringIn into={book.id} onClose={() => void navigate(`/books/${book.id}/write`)} />
        </div>
      </div>
    </PageFrame>
  );
}
