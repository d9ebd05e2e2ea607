import type { DestinationKind } from "@vennet/core/destination/destination";
import { FileText, Globe, Mail, MapPin } from "lucide-react";

const kinds = {
  web: { icon: Globe, word: "Web" },
  email: { icon: Mail, word: "Email" },
  file: { icon: FileText, word: "File" },
  place: { icon: MapPin, word: "In this book" },
};

/** The kind of a destination: a shape and its word. */
export function KindMark({ kind }: { kind: DestinationKind }) {
  const { icon: Icon, word } = kinds[kind];
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <Icon aria-hidden size={14} />
      {word}
    </span>
  );
}
