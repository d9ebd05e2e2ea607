import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode, type ComponentType } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { ApiError } from "./api/client";
import { askEarly } from "./frame/ask-early";
import { BrokenPage } from "./frame/broken-page";
import { keepFocus } from "./frame/kept-focus";
import { showTheme } from "./frame/theme";
import { Tips } from "./frame/tips";
import { sayRefusals, UndoBar } from "./frame/undo-bar";
import { listenForUndo } from "./frame/undo-keys";
import { SignedInOnly } from "./session/session";
import { Waiting } from "./parts/notice";
import "./style.css";

showTheme();
keepFocus();
sayRefusals();

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What the server refuses it will refuse again; only its absence is worth another try.
      retry: (count, error) => error instanceof ApiError && error.away && count < 3,
      staleTime: 5_000,
    },
  },
});

/** A page that is loaded when it is opened. */
const page = (load: () => Promise<ComponentType>) => ({ lazy: async () => ({ Component: await load() }) });
const write = page(async () => (await import("./write-stage")).WriteStage);

const router = createBrowserRouter([
  {
    ErrorBoundary: BrokenPage,
    children: [
      { path: "/sign-in", ...page(async () => (await import("./session/sign-in-page")).SignInPage) },
      {
        path: "/new-password",
        ...page(async () => (await import("./session/new-password-page")).NewPasswordPage),
      },
      {
        path: "/confirm-email",
        ...page(async () => (await import("./session/confirm-email-page")).ConfirmEmailPage),
      },
      {
        Component: SignedInOnly,
        HydrateFallback: () => <Waiting what="Opening" />,
        children: [
          { path: "/", ...page(async () => (await import("./shelf/shelf-page")).ShelfPage) },
          { path: "/account", ...page(async () => (await import("./account/account-page")).AccountPage) },
          {
            path: "/books/:bookId",
            ...page(async () => (await import("./book-page")).BookPage),
            children: [
              { index: true, element: <Navigate to="write" replace /> },
              { path: "write", ...write },
              { path: "write/:chapterId", ...write },
              {
                path: "write/:chapterId/versions",
                ...page(async () => (await import("./write/versions/versions-page")).VersionsPage),
              },
              { path: "bring-in", ...page(async () => (await import("./import/import-page")).ImportPage) },
              { path: "links", ...page(async () => (await import("./links/ledger-page")).LedgerPage) },
              { path: "links/files", ...page(async () => (await import("./links/files-page")).FilesPage) },
              { path: "links/codes", ...page(async () => (await import("./links/codes-page")).CodesPage) },
              {
                path: "links/addresses",
                ...page(async () => (await import("./links/bare-addresses-page")).BareAddressesPage),
              },
              { path: "links/looks", ...page(async () => (await import("./links/looks-page")).LooksPage) },
              {
                path: "links/numbers",
                ...page(async () => (await import("./links/numbers-page")).NumbersPage),
              },
              { path: "links/steps", ...page(async () => (await import("./links/steps-page")).StepsPage) },
              { path: "checks", ...page(async () => (await import("./checks/checks-page")).ChecksPage) },
              {
                path: "checks/findings",
                ...page(async () => (await import("./checks/findings-page")).FindingsPage),
              },
              {
                path: "checks/health",
                ...page(async () => (await import("./checks/health-page")).HealthPage),
              },
              { path: "read/:exportId?", ...page(async () => (await import("./read/read-page")).ReadPage) },
              { path: "export", ...page(async () => (await import("./export-stage")).ExportStage) },
              {
                path: "export/:exportId",
                ...page(async () => (await import("./export/proof-page")).ProofPage),
              },
            ],
          },
          { path: "*", element: <Navigate to="/" replace /> },
        ],
      },
    ],
  },
]);

askEarly(queries, location.pathname);
listenForUndo(router);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
      <UndoBar />
      <Tips />
    </QueryClientProvider>
  </StrictMode>,
);
