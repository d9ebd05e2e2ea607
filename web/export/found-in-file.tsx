import { readWhereInPage } from "@vennet/core/proof/where-in-page";
import { readWhere } from "@vennet/core/proof/where-in-pdf";
import { useMemo } from "react";
import type { ExportListing } from "../api/client";
import { Problem, Waiting } from "../parts/notice";
import { FlowScreen, type Device, type ScreenState } from "../read/flow-screen";
import { openEpub } from "../read/open-epub";
import type { OpenFlow } from "../read/open-flow";
import { openPdf, type OpenPdf } from "../read/open-pdf";
import { openWeb } from "../read/open-web";
import { PdfPage } from "../read/pdf-page";
import { useOpenedFile } from "../read/use-opened-file";

// In px; the column beside the table is as wide as this leaves room for.
const width = 380;
const frame = 24;
const sheet: Device = { name: "page", width: width - frame, height: 560, isGrey: false };

/** The very page of an exported file on which the proof has found a link, with the link marked. */
export function FoundInFile({
  bookId,
  exportId,
  format,
  where,
}: {
  bookId: string;
  exportId: string;
  format: ExportListing["format"];
  where: string;
}) {
  return format === "pdf" ? (
    <InPdf bookId={bookId} exportId={exportId} where={where} />
  ) : (
    <InFlow bookId={bookId} exportId={exportId} open={format === "epub" ? openEpub : openWeb} where={where} />
  );
}

function InPdf({ bookId, exportId, where }: { bookId: string; exportId: string; where: string }) {
  const { opened, problem } = useOpenedFile<OpenPdf>(
    bookId,
    exportId,
    openPdf,
    ({ document }) => void document.destroy(),
  );
  if (problem) return <Problem>{problem}</Problem>;
  const place = readWhere(where);
  if (!opened || !place) return <Waiting what="Opening the file" />;
  return (
    <PdfPage
      document={opened.document}
      number={place.page}
      scale={width / opened.width}
      outlined={false}
      chosen={where}
      mark={place.rect[3]}
      onFollow={() => undefined}
    />
  );
}

function InFlow({
  bookId,
  exportId,
  open,
  where,
}: {
  bookId: string;
  exportId: string;
  open: (bytes: Uint8Array) => OpenFlow;
  where: string;
}) {
  const { opened, problem } = useOpenedFile(bookId, exportId, open);
  const at = useMemo((): ScreenState | null => {
    const place = readWhereInPage(where);
    // A page alone has no name of its own.
    const page = opened?.pages.find(({ path }) => path === place?.file) ?? opened?.pages[0];
    if (!place || !page) return null;
    const link = place.count === null ? null : place.count - 1;
    return { path: page.path, fragment: place.id ?? "", link, screen: null };
  }, [opened, where]);
  if (problem) return <Problem>{problem}</Problem>;
  if (!opened || !at) return <Waiting what="Opening the file" />;
  return (
    <FlowScreen
      file={opened}
      device={sheet}
      light="day"
      size={90}
      outlined={false}
      at={at}
      onShown={() => undefined}
      onPress={() => undefined}
    />
  );
}
