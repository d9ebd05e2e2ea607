import { PermissionFlag, type PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { openDocument } from "../parts/pdf-document";

/** Why a file is not worked on without a password: it opens with one only, or its owner alone may change it. */
export type Lock = "opens" | "changes";

/** What is seen of chosen files before they are sent: the first PDF, opened, and which need a password. */
export interface Looked {
  first: PDFDocumentProxy | null;
  locks: ReadonlyMap<File, Lock>;
}

const nothing: Looked = { first: null, locks: new Map() };

/** Looks at chosen files in the browser, one after the other. What cannot be opened the server tells of. */
export function useLookAtFiles(chosen: readonly File[]): Looked {
  const [looked, setLooked] = useState(nothing);
  useEffect(() => {
    let isLeft = false;
    let first: PDFDocumentProxy | null = null;
    setLooked(nothing);
    const look = async (): Promise<void> => {
      for (const file of chosen) {
        if (isLeft) return;
        const { document, lock } = await lookAt(file);
        if (isLeft || first) void document?.loadingTask.destroy();
        else first = document;
        if (isLeft) return;
        setLooked(({ locks }) => ({ first, locks: lock ? new Map(locks).set(file, lock) : locks }));
      }
    };
    void look();
    return () => {
      isLeft = true;
      void first?.loadingTask.destroy();
    };
  }, [chosen]);
  return looked;
}

async function isPdf(file: File): Promise<boolean> {
  return /%PDF-/.test(await file.slice(0, 1024).text());
}

async function lookAt(file: File): Promise<{ document: PDFDocumentProxy | null; lock: Lock | null }> {
  let needsPassword = false;
  try {
    if (!(await isPdf(file))) return { document: null, lock: null };
    const task = openDocument({ data: new Uint8Array(await file.arrayBuffer()) });
    task.onPassword = () => {
      needsPassword = true;
      void task.destroy();
    };
    const document = await task.promise;
    const allowed = await document.getPermissions();
    const mayChange =
      allowed?.some(
        (one) => one === PermissionFlag.MODIFY_CONTENTS || one === PermissionFlag.MODIFY_ANNOTATIONS,
      ) ?? true;
    return { document, lock: mayChange ? null : "changes" };
  } catch {
    // Ended for its password, damaged, or gone from the disk: sending it says so.
    return { document: null, lock: needsPassword ? "opens" : null };
  }
}
