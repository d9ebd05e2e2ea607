import { useEffect, useState } from "react";
import { errorFrom } from "../api/client";
import type { Asked } from "../parts/not-read";
import { useAsked } from "../parts/use-asked";

/** A file of the server, downloaded and opened; closed when it is left. */
export function useOpenedFile<T>(
  address: string,
  open: (bytes: Uint8Array) => Promise<T> | T,
  close?: (opened: T) => void,
): { opened: T | null; asked: Asked } {
  const [opened, setOpened] = useState<T | null>(null);
  const { asked, tries, fail } = useAsked();
  useEffect(() => {
    const leaving = new AbortController();
    let file: T | null = null;
    const begin = async (): Promise<void> => {
      const answer = await fetch(address, { signal: leaving.signal });
      if (!answer.ok) throw errorFrom(answer.status, await answer.json().catch(() => null));
      file = await open(new Uint8Array(await answer.arrayBuffer()));
      if (leaving.signal.aborted) close?.(file);
      else setOpened(file);
    };
    begin().catch((why: unknown) => {
      if (!leaving.signal.aborted) fail(why);
    });
    return () => {
      leaving.abort();
      if (file !== null) close?.(file);
    };
    // A file is opened once; its ways to be opened and closed never change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [address, tries]);
  return { opened, asked };
}

/** Where the server gives an exported file out. */
export function exportAddress(bookId: string, exportId: string): string {
  return `/api/books/${bookId}/exports/${exportId}/file`;
}
