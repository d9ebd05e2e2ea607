import { useQuery } from "@tanstack/react-query";
import type { CompanionFile } from "../api/client";
import { keys } from "../api/keys";
import { Waiting } from "../parts/notice";
import { NotRead } from "../parts/not-read";

const textShown = 20_000;

/** What a browser can show of a file, without leaving the list. */
export function FilePreview({ bookId, file }: { bookId: string; file: CompanionFile }) {
  const address = `/api/books/${bookId}/files/${file.id}`;
  const { mediaType, name } = file;
  if (/^image\/(png|jpeg|gif|webp|avif)$/.test(mediaType))
    return (
      <img
        src={address}
        alt={`Preview of ${name}`}
        className="my-2 ml-7 max-h-80 max-w-full border border-hairline"
      />
    );
  if (mediaType.startsWith("audio/")) return <audio controls src={address} className="my-2 ml-7" />;
  if (mediaType.startsWith("video/")) return <video controls src={address} className="my-2 ml-7 max-h-80" />;
  if (/^text\/|json$/.test(mediaType)) return <TextPreview address={address} name={name} />;
  return (
    <p className="my-2 ml-7 text-faint">
      {mediaType === "application/pdf"
        ? "A PDF is shown in a tab of its own: Open."
        : "A browser cannot show this kind of file. Open keeps a copy on this computer."}
    </p>
  );
}

function TextPreview({ address, name }: { address: string; name: string }) {
  const text = useQuery({
    queryKey: keys.fileText(address),
    queryFn: async () => {
      const answer = await fetch(address);
      if (!answer.ok) throw new Error(`The file could not be read (${answer.status}).`);
      return answer.text();
    },
    staleTime: 0,
  });
  if (!text.data) return text.error ? <NotRead of={text} /> : <Waiting what="Reading the file" />;
  return (
    <pre
      tabIndex={0}
      aria-label={`Preview of ${name}`}
      className="my-2 ml-7 max-h-72 overflow-auto border border-hairline p-3 font-mono text-sm whitespace-pre-wrap"
    >
      {text.data.slice(0, textShown)}
      {text.data.length > textShown && "\n…"}
    </pre>
  );
}
