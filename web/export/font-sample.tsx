import { useEffect, useState } from "react";
import type { Font } from "../api/client";

/** Some words in a font that the author brought, once it has come. */
export function FontSample({ bookId, font }: { bookId: string; font: Font }) {
  const [isThere, setThere] = useState(false);
  useEffect(() => {
    const face = new FontFace(`brought-${font.id}`, `url("/api/books/${bookId}/files/${font.id}")`);
    let isOver = false;
    face
      .load()
      .then(() => {
        if (isOver) return;
        document.fonts.add(face);
        setThere(true);
      })
      // A browser may refuse what the typesetter takes; then there is no sample, and nothing else is missing.
      .catch(() => undefined);
    return () => {
      isOver = true;
      document.fonts.delete(face);
    };
  }, [bookId, font.id]);
  return (
    <p
      aria-hidden
      hidden={!isThere}
      className="overflow-hidden text-lg text-ellipsis whitespace-nowrap"
      style={{ fontFamily: `"brought-${font.id}"` }}
    >
      Low water at Hesterley, 6:45; the causeway is dry for three hours.
    </p>
  );
}
