import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { ApiError } from "./api/client";
import { BookPage } from "./book-page";
import { ChecksPage } from "./checks/checks-page";
import { FindingsPage } from "./checks/findings-page";
import { ExportPage } from "./export/export-page";
import { ProofPage } from "./export/proof-page";
import { showTheme } from "./frame/theme";
import { UndoBar } from "./frame/undo-bar";
import { CodesPage } from "./links/codes-page";
import { FilesPage } from "./links/files-page";
import { LedgerPage } from "./links/ledger-page";
import { LooksPage } from "./links/looks-page";
import { NumbersPage } from "./links/numbers-page";
import { StepsPage } from "./links/steps-page";
import { SignedInOnly } from "./session/session";
import { SignInPage } from "./session/sign-in-page";
import { ShelfPage } from "./shelf/shelf-page";
import { VersionsPage } from "./write/versions/versions-page";
import { WritePage } from "./write/write-page";
import "./style.css";

showTheme();

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What the server refuses it will refuse again; only its absence is worth another try.
      retry: (count, error) => error instanceof ApiError && error.away && count < 3,
      staleTime: 5_000,
    },
  },
});

const router = createBrowserRouter([
  { path: "/sign-in", Component: SignInPage },
  {
    Component: SignedInOnly,
    children: [
      { path: "/", Component: ShelfPage },
      {
        path: "/books/:bookId",
        Component: BookPage,
        children: [
          { index: true, element: <Navigate to="write" replace /> },
          { path: "write", Component: WritePage },
          { path: "write/:chapterId", Component: WritePage },
          { path: "write/:chapterId/versions", Component: VersionsPage },
          { path: "links", Component: LedgerPage },
          { path: "links/files", Component: FilesPage },
          { path: "links/codes", Component: CodesPage },
          { path: "links/looks", Component: LooksPage },
          { path: "links/numbers", Component: NumbersPage },
          { path: "links/steps", Component: StepsPage },
          { path: "checks", Component: ChecksPage },
          { path: "checks/findings", Component: FindingsPage },
          // It brings the charts with it, which nothing else needs.
          {
            path: "checks/health",
            lazy: async () => ({ Component: (await import("./checks/health-page")).HealthPage }),
          },
          // It brings the reader of PDFs with it.
          {
            path: "read/:exportId?",
            lazy: async () => ({ Component: (await import("./read/read-page")).ReadPage }),
          },
          { path: "export", Component: ExportPage },
          { path: "export/:exportId", Component: ProofPage },
        ],
      },
      { path: "*", element: <Navigate to="/" replace /> },
    ],
  },
]);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
      <UndoBar />
    </QueryClientProvider>
  </StrictMode>,
);
