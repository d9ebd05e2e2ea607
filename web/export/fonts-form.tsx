import { useMutation, useQuery } from "@tanstack/react-query";
import { fontUses, usualFonts, type BookFonts, type FontUse } from "@vennet/core/manuscript/book-fonts";
import { mayGoInto, type FontMedium } from "@vennet/core/publish/own-fonts";
import { FileUp } from "lucide-react";
import { useId, useRef, useState } from "react";
import { answerOf, api, ApiError, sendForm, type Font, type StoredFonts } from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { Progress } from "../parts/progress";
import { fileSize } from "../parts/wording";
import { FontSample } from "./font-sample";
import { faceWords } from "./face-words";
import { NotRead } from "../parts/not-read";

const uses: Record<FontUse, { name: string; usual: string }> = {
  text: { name: "Text", usual: "Literata" },
  headings: { name: "Headings", usual: "As the text" },
  code: { name: "Code", usual: "JetBrains Mono" },
};
const media: [FontMedium, string][] = [
  ["pdf", "PDF"],
  ["epub", "e-book"],
  ["web", "web page"],
];
/** The names that OpenType 1.9 gives to what `fsType` permits. */
const permissions: Record<Font["permission"], string> = {
  installable: "Installable embedding",
  editable: "Editable embedding",
  preview: "Preview & Print embedding",
  restricted: "Restricted License embedding",
};

/** In which fonts the book is set, and those that the author brought for it: for this export and all that follow. */
export function FontsForm() {
  const book = useBook();
  const stale = useStale();
  const params = { path: { bookId: book.id } };
  const brought = useQuery({
    queryKey: keys.fonts(book.id),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/fonts", { params })),
  });
  const [chosen, setChosen] = useState<BookFonts>(book.fonts);
  const save = useMutation({
    mutationFn: () => answerOf(api.PATCH("/api/books/{bookId}", { params, body: { fonts: chosen } })),
    onSuccess: () => stale("settings"),
  });
  const isChanged = fontUses.some((use) => chosen[use] !== book.fonts[use]);
  const families = [...new Set((brought.data ?? []).map(({ family }) => family))];
  return (
    <details className="mt-4 border border-hairline bg-paper">
      <summary className="px-5 py-2.5">
        Fonts: <span className="text-faint">{fontWords(book.fonts)}</span>
      </summary>
      <div className="grid gap-x-8 gap-y-4 border-t border-hairline px-5 py-4 md:grid-cols-[17rem_1fr]">
        <div className="grid content-start gap-3">
          {fontUses.map((use) => (
            <FamilySelect
              key={use}
              use={use}
              chosen={chosen[use]}
              families={families}
              onChoose={(family) => setChosen({ ...chosen, [use]: family })}
            />
          ))}
        </div>
        <div className="min-w-0">
          <BringFonts />
          {brought.isPending && <Waiting what="Reading the fonts" />}
          <NotRead of={brought} />
          {brought.data?.length === 0 && (
            <p className="mt-3 text-faint">
              No font of your own yet. One file for each of regular, italic and bold; letters that a font
              lacks are set in the usual one.
            </p>
          )}
          <ul className="mt-2">
            {brought.data?.map((font) => (
              <BroughtFont key={font.id} font={font} />
            ))}
          </ul>
        </div>
      </div>
      {save.error && <Problem>{save.error.message}</Problem>}
      <div className="flex flex-wrap items-center gap-4 border-t border-hairline px-5 py-3">
        <Button disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          {save.isPending ? "Saving …" : "Save"}
        </Button>
        <Button kind="quiet" disabled={!isChanged} onClick={() => setChosen(book.fonts)}>
          Cancel
        </Button>
        <Button kind="quiet" onClick={() => setChosen(usualFonts)}>
          Default
        </Button>
        {save.isSuccess && !isChanged && <span role="status">Saved: the next export is set so.</span>}
      </div>
    </details>
  );
}

function FamilySelect({
  use,
  chosen,
  families,
  onChoose,
}: {
  use: FontUse;
  chosen: string | null;
  families: readonly string[];
  onChoose: (family: string | null) => void;
}) {
  const id = useId();
  const { name, usual } = uses[use];
  const isAway = chosen !== null && !families.includes(chosen);
  return (
    <div className="flex items-center justify-between gap-3">
      <label htmlFor={id}>{name}</label>
      <select
        id={id}
        value={chosen ?? ""}
        onChange={({ target: { value } }) => onChoose(value === "" ? null : value)}
        className="min-h-8 w-44 border border-hairline bg-paper px-1"
      >
        <option value="">{usual}</option>
        {families.map((family) => (
          <option key={family}>{family}</option>
        ))}
        {isAway && <option value={chosen}>{chosen} (removed)</option>}
      </select>
    </div>
  );
}

/** Takes font files, as many as are chosen, and tells of each that was refused why. */
function BringFonts() {
  const book = useBook();
  const stale = useStale();
  const picker = useRef<HTMLInputElement>(null);
  const [upload, setUpload] = useState<{ share: number; abort: AbortController } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (files: File[]): Promise<void> => {
    if (files.length === 0) return;
    const form = new FormData();
    for (const file of files) form.append("font", file);
    const abort = new AbortController();
    setProblem(null);
    setUpload({ share: 0, abort });
    try {
      const { refused } = await sendForm<StoredFonts>(`/api/books/${book.id}/fonts`, form, {
        signal: abort.signal,
        onProgress: (share) => setUpload({ share, abort }),
      });
      if (refused.length > 0) setProblem(refused.map(({ message }) => message).join("\n"));
    } catch (error) {
      if (!(error instanceof ApiError && error.code === "cancelled")) setProblem((error as Error).message);
    } finally {
      setUpload(null);
      await stale("fonts");
    }
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button disabled={upload !== null} onClick={() => picker.current?.click()}>
          <FileUp aria-hidden size={15} /> Bring fonts in
        </Button>
        <span className="text-sm text-faint">TTF or OTF, up to 30 MB each</span>
      </div>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        accept=".ttf,.otf,font/ttf,font/otf"
        aria-label="Font files to bring in"
        onChange={(event) => {
          void send([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
      {upload && (
        <div className="mt-2 flex items-center gap-4">
          <Progress label="Bringing fonts in" done={Math.round(upload.share * 100)} total={100} />
          <Button kind="quiet" onClick={() => upload.abort.abort()}>
            Cancel
          </Button>
        </div>
      )}
      {problem && (
        <div className="mt-2">
          <Problem>{problem}</Problem>
        </div>
      )}
    </>
  );
}

function BroughtFont({ font }: { font: Font }) {
  const book = useBook();
  const stale = useStale();
  const remove = useMutation({
    mutationFn: () =>
      answerOf(
        api.DELETE("/api/books/{bookId}/fonts/{fontId}", {
          params: { path: { bookId: book.id, fontId: font.id } },
        }),
      ),
    onSuccess: () => stale("fonts"),
  });
  const into = media.filter(([medium]) => mayGoInto(medium, font)).map(([, name]) => name);
  const name = `${font.family}, ${faceWords(font)}`;
  return (
    <li className="grid gap-x-4 border-b border-hairline py-2 last:border-b-0 sm:grid-cols-[1fr_auto]">
      <div className="min-w-0">
        <strong className="[overflow-wrap:anywhere]">{name}</strong>{" "}
        <span className="text-sm text-faint">
          {fileSize(font.size)}. {permissions[font.permission]}
          {font.canBeSubset ? "" : ", only whole"}: goes into {into.join(", ")}
          {into.length < media.length ? " only" : ""}.
        </span>
        <FontSample bookId={book.id} font={font} />
      </div>
      <Button
        kind="quiet"
        className="self-start"
        aria-label={`Remove ${name}`}
        disabled={remove.isPending}
        onClick={() => remove.mutate()}
      >
        Remove
      </Button>
      {remove.error && <Problem>{remove.error.message}</Problem>}
    </li>
  );
}

/** In what a book is set, in a few words. */
function fontWords(fonts: BookFonts): string {
  return fontUses
    .map((use) => {
      const { name, usual } = uses[use];
      return `${name.toLowerCase()} ${fonts[use] ?? (use === "headings" ? usual.toLowerCase() : usual)}`;
    })
    .join(", ");
}
