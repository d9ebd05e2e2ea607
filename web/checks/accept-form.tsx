import { useState } from "react";
import { Button } from "../parts/button";

/** Asks why a finding may stay. Enter accepts it, Esc leaves it as it was. */
export function AcceptForm({
  onAccept,
  onLeave,
  buttonClass = "",
}: {
  onAccept: (reason: string) => void;
  onLeave: () => void;
  buttonClass?: string;
}) {
  const [reason, setReason] = useState("");
  return (
    <form
      className="flex items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== "") onAccept(reason.trim());
      }}
      onKeyDown={(event) => event.key === "Escape" && onLeave()}
    >
      <input
        autoFocus
        aria-label="Why it may stay"
        placeholder="Why it may stay"
        value={reason}
        maxLength={500}
        onChange={(event) => setReason(event.target.value)}
        className="w-full min-w-0 border-b border-edge bg-transparent placeholder:text-faint"
      />
      <Button kind="quiet" type="submit" className={buttonClass} disabled={reason.trim() === ""}>
        Accept
      </Button>
    </form>
  );
}
