import { readWhereInPage } from "@vennet/core/proof/where-in-page";
import { useMemo } from "react";
import { Waiting } from "../parts/notice";
import { FlowScreen, type Device, type ScreenState } from "../read/flow-screen";
import { openEpub } from "../read/open-epub";
import type { OpenFlow } from "../read/open-flow";
import { openWeb } from "../read/open-web";
import { exportAddress, useOpenedFile } from "../read/use-opened-file";
import { NotRead } from "../parts/not-read";

// In px; the column beside the table is as wide as this leaves room for.
const width = 380;
const frame = 24;
const sheet: Device = { name: "page", width: width - frame, height: 560, isGrey: false };

interface Found {
  bookId: string;
  exportId: string;
  where: string;
}

/** The very page of an exported e-book on which the proof has found a link, with the link marked. */
export function FoundInEpub(found: Found) {
  return <InFlow {...found} open={openEpub} />;
}

/** The same in exported web pages. */
export function FoundInWeb(found: Found) {
  return <InFlow {...found} open={openWeb} />;
}

function InFlow({ bookId, exportId, open, where }: Found & { open: (bytes: Uint8Array) => OpenFlow }) {
  const { opened, asked } = useOpenedFile(exportAddress(bookId, exportId), open);
  const at = useMemo((): ScreenState | null => {
    const place = readWhereInPage(where);
    // A page alone has no name of its own.
    const page = opened?.pages.find(({ path }) => path === place?.file) ?? opened?.pages[0];
    if (!place || !page) return null;
    const link = place.count === null ? null : place.count - 1;
    return { path: page.path, fragment: place.id ?? "", link, screen: null };
  }, [opened, where]);
  if (asked.error) return <NotRead of={asked} />;
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
