import { readMailto } from "@vennet/core/destination/mailto";
import { dataAddress } from "@vennet/core/publish/data-address";
import { Undo2 } from "lucide-react";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { useStandIns } from "../api/stand-ins";
import { Button } from "../parts/button";
import { fileSize } from "../parts/wording";
import type { OutwardLink } from "./outward-link";
import { pictureType } from "./picture-type";

const mostShown = 200_000;

/** What a reader gets who opens a link: the page, the mail program's message, or the file. */
export function StandInWindow({
  link,
  href,
  file,
  onClose,
}: {
  link: OutwardLink;
  /** What a browser opens; null for a file that came along. */
  href: string | null;
  file: Uint8Array | null;
  onClose: () => void;
}) {
  const isMail = /^mailto:/i.test(link.address);
  const kind = file ? "The file" : isMail ? "The mail window" : "The web page";
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-4 top-[8vh] z-50 mx-auto flex h-[80vh] max-w-[52rem] flex-col border border-ink bg-paper"
        >
          <div className="flex items-start gap-x-4 border-b border-hairline px-5 py-2">
            <div className="min-w-0 grow">
              <Dialog.Title className="font-serif text-lg">{kind} that a reader gets</Dialog.Title>
              {!isMail && (
                <p className="font-mono text-[0.85rem] text-faint [overflow-wrap:anywhere]">{link.address}</p>
              )}
            </div>
            <Dialog.Close asChild>
              <Button className="shrink-0">
                <Undo2 aria-hidden size={15} /> Back to the book
              </Button>
            </Dialog.Close>
          </div>
          {file ? (
            <ShownFile path={link.address} bytes={file} />
          ) : isMail ? (
            <MailWindow address={link.address} />
          ) : (
            <WebWindow name={link.name} href={href} />
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The message with which a mail program opens (RFC 6068). */
function MailWindow({ address }: { address: string }) {
  const message = readMailto(address);
  const rows: [string, string][] = [
    ["To", message.to.join(", ")],
    ["Copy to", message.cc.join(", ")],
    ["Blind copy to", message.bcc.join(", ")],
    ["Subject", message.subject],
    ...message.other,
  ];
  return (
    <div className="flex min-h-0 grow flex-col overflow-y-auto p-5">
      <dl>
        {rows
          .filter(([name, value]) => value !== "" || name === "To" || name === "Subject")
          .map(([name, value]) => (
            <div key={name} className="grid grid-cols-[8rem_1fr] gap-3 border-b border-hairline py-1.5">
              <dt className="text-faint">{name}</dt>
              <dd className="[overflow-wrap:anywhere]">
                {value || <span className="text-faint">left empty</span>}
              </dd>
            </div>
          ))}
      </dl>
      <p
        tabIndex={0}
        aria-label="The message"
        role="region"
        className="min-h-24 shrink-0 grow py-4 font-serif whitespace-pre-wrap [overflow-wrap:anywhere]"
      >
        {message.body || <span className="font-sans text-faint">The message is left to the reader.</span>}
      </p>
      <p className="border-t border-hairline pt-2 text-faint">
        So the reader’s mail program opens. Nothing has been sent, and nothing is until the reader sends it.
      </p>
    </div>
  );
}

function WebWindow({ name, href }: { name: string; href: string | null }) {
  const standIns = useStandIns();
  const isStandIn = href !== null && standIns?.answers(href);
  if (!isStandIn)
    return (
      <Said>
        Only the stand-in web is shown here, and this address is not one of its own. Go back and open it in a
        new tab.
      </Said>
    );
  return (
    <iframe
      title={`The page of “${name}”`}
      src={href}
      // The page comes from elsewhere: no script of it runs, and it opens nothing.
      sandbox=""
      referrerPolicy="no-referrer"
      className="min-h-0 w-full grow bg-white"
    />
  );
}

function ShownFile({ path, bytes }: { path: string; bytes: Uint8Array }) {
  const type = pictureType(path);
  const size = fileSize(bytes.length);
  if (type) {
    return (
      <div className="grid min-h-0 grow place-items-center overflow-auto bg-white p-5">
        <img src={dataAddress(type, bytes)} alt={`The picture “${path}”`} className="max-h-full max-w-full" />
      </div>
    );
  }
  const text = textOf(bytes.subarray(0, mostShown));
  if (text === null)
    return (
      <Said>
        A file of {size}, which the reader’s own programs open or save. Go back to save a copy and look into
        it.
      </Said>
    );
  return (
    <pre
      tabIndex={0}
      aria-label="The text of the file"
      role="region"
      className="min-h-0 grow overflow-auto bg-white p-5 font-mono text-[0.9rem] text-[#1c1a17]"
    >
      {text}
      {bytes.length > mostShown && `\n… (${size} in all)`}
    </pre>
  );
}

/** The bytes as text, or null where they are something else. */
function textOf(bytes: Uint8Array): string | null {
  try {
    // The last character may be cut in two where only the beginning is shown.
    const text = new TextDecoder("utf-8", { fatal: true }).decode(bytes, { stream: true });
    return text.includes("\0") ? null : text;
  } catch {
    return null;
  }
}

function Said({ children }: { children: ReactNode }) {
  return <p className="m-auto max-w-md p-8 font-serif text-lg">{children}</p>;
}
