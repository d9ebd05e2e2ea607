import { readWhere } from "@vennet/core/proof/where-in-pdf";
import { Waiting } from "../parts/notice";
import type { OpenPdf } from "../read/open-pdf";
import { useOpenPdf } from "../read/use-open-pdf";
import { PdfPage } from "../read/pdf-page";
import { exportAddress, useOpenedFile } from "../read/use-opened-file";
import { NotRead } from "../parts/not-read";

// In px; the column beside the table is as wide as this leaves room for.
const width = 380;

/** The very page of an exported PDF on which the proof has found a link, with the link marked. */
export function FoundInPdf({ bookId, exportId, where }: { bookId: string; exportId: string; where: string }) {
  const { opened, asked } = useOpenedFile<OpenPdf>(
    exportAddress(bookId, exportId),
    useOpenPdf(),
    ({ document }) => void document.destroy(),
  );
  if (asked.error) return <NotRead of={asked} />;
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
