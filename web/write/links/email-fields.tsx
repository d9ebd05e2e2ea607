import { isEmailAddress } from "@vennet/core/destination/kinds/email";
import { splitRecipients, writeMailto, type MailMessage } from "@vennet/core/destination/mailto";
import { useId, useState } from "react";
import { useStandIns } from "../../api/stand-ins";
import { LineRow } from "./line-row";

/** What a message has besides its recipients, and what the reader's mail program will open with. */
export function EmailFields({
  message,
  onChange,
}: {
  message: MailMessage;
  onChange: (message: MailMessage) => void;
}) {
  const standIns = useStandIns();
  const address = writeMailto(message);
  return (
    <>
      <LineRow
        label="Subject"
        value={message.subject}
        onChange={(subject) => onChange({ ...message, subject })}
      />
      <Recipients label="Copy to" value={message.cc} onChange={(cc) => onChange({ ...message, cc })} />
      <Recipients label="Blind copy" value={message.bcc} onChange={(bcc) => onChange({ ...message, bcc })} />
      <LineRow
        label="Begins with"
        rows={2}
        value={message.body}
        onChange={(body) => onChange({ ...message, body })}
      />
      <div className="mt-1 flex items-baseline gap-3">
        <span className="w-20 shrink-0 text-right text-sm text-faint">Reader’s mail</span>
        <dl
          aria-label="What the reader’s mail opens with"
          className="mr-3 grow border border-hairline px-2 py-1 text-sm [overflow-wrap:anywhere]"
        >
          <Shown name="To" value={message.to.join(", ")} />
          <Shown name="Cc" value={message.cc.join(", ")} />
          <Shown name="Bcc" value={message.bcc.join(", ")} />
          <Shown name="Subject" value={message.subject} />
          {message.body && <dd className="mt-1 whitespace-pre-wrap">{message.body}</dd>}
        </dl>
      </div>
      {standIns && (
        <p className="pr-3 pl-[5.75rem] text-sm">
          <a
            href={standIns.mail(address)}
            target="_blank"
            rel="noreferrer noopener"
            className="underline decoration-edge underline-offset-4 hover:text-blue"
          >
            See it in the stand-in mail
          </a>
        </p>
      )}
    </>
  );
}

function Shown({ name, value }: { name: string; value: string }) {
  if (value === "") return null;
  return (
    <div className="flex gap-2">
      <dt className="w-14 shrink-0 text-faint">{name}</dt>
      <dd className="min-w-0">{value}</dd>
    </div>
  );
}

/** Typed as a line; what is not an address is said at once and kept out of the message. */
function Recipients({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string[];
  onChange: (value: string[]) => void;
}) {
  const [typed, setTyped] = useState(value.join(", "));
  const id = useId();
  const wrong = splitRecipients(typed).filter((one) => !isEmailAddress(one));
  return (
    <>
      <LineRow
        label={label}
        value={typed}
        describedBy={wrong.length > 0 ? id : undefined}
        onChange={(next) => {
          setTyped(next);
          onChange(splitRecipients(next).filter(isEmailAddress));
        }}
      />
      {wrong.length > 0 && (
        <p id={id} className="pl-[5.75rem] text-sm text-red">
          Not an email address: {wrong.join(", ")}
        </p>
      )}
    </>
  );
}
