import type { PDFDocumentProxy } from "pdfjs-dist";
import { useShownPage } from "./pdf/shown-page";

const scale = 0.35;

/** The first page of a file, which is shown while all of it is read. */
export function FirstPage({ file }: { file: PDFDocumentProxy }) {
  const { canvas, shown } = useShownPage(file, 1, scale);
  return (
    <figure className="shrink-0 max-md:hidden">
      <div
        className="border border-hairline bg-white"
        style={
          shown ? { width: shown.viewport.width, height: shown.viewport.height } : { width: 147, height: 208 }
        }
      >
        <canvas ref={canvas} role="img" aria-label="The first page of the file" className="size-full" />
      </div>
    </figure>
  );
}
