import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { useSignedOut } from "./signed-out";

/** The HTTP interface, typed by its own description. */
export const api = createClient<paths>({ baseUrl: "/" });

export type Account = components["schemas"]["AccountAnswer"];
export type Book = components["schemas"]["BookAnswer"];
export type DeletedBook = components["schemas"]["DeletedBookAnswer"];
export type BookStates = components["schemas"]["BookStatesAnswer"];
export type Arrival = components["schemas"]["ArrivalAnswer"];
export type VersionOfBook = components["schemas"]["NewVersionAnswer"];
export type Imported = components["schemas"]["ImportAnswer"];
export type ChapterListing = components["schemas"]["ChapterListingAnswer"];
export type Chapter = components["schemas"]["ChapterAnswer"];
export type ChapterSaved = components["schemas"]["ChapterSavedAnswer"];
export type ChapterRevision = components["schemas"]["ChapterRevisionAnswer"];
export type Job = components["schemas"]["JobAnswer"];
export type CheckedDestination = components["schemas"]["DestinationAnswer"];
export type ReachRun = components["schemas"]["RunAnswer"];
export type LinkState = CheckedDestination["state"];
export type PlaceListing = components["schemas"]["PlaceAnswer"];
export type CompanionFile = components["schemas"]["CompanionFileAnswer"];
export type FromShelf = components["schemas"]["FromShelfAnswer"];
export type StoredCompanions = components["schemas"]["StoredCompanionsAnswer"];
export type StoredCompanion = components["schemas"]["StoredCompanionAnswer"];
export type Font = components["schemas"]["FontAnswer"];
export type StoredFonts = components["schemas"]["StoredFontsAnswer"];
export type FinishedPageRow = components["schemas"]["FinishedPageAnswer"];
export type LedgerRow = components["schemas"]["LedgerRowAnswer"];
export type LedgerGroup = components["schemas"]["LedgerGroupAnswer"];
export type LinkEdit = components["schemas"]["LinkEdit"];
export type ChapterMentions = components["schemas"]["ChapterMentionsAnswer"];
export type VersionListing = components["schemas"]["VersionListingAnswer"];
export type BookFinding = components["schemas"]["FindingAnswer"];
export type Step = components["schemas"]["StepAnswer"];
export type ExportListing = components["schemas"]["ExportListingAnswer"];
export type Preflight = components["schemas"]["PreflightAnswer"];
export type ExportWithProof = components["schemas"]["ExportAnswer"];

/** What the server answered instead of what was asked for, in its one shape; or that it did not answer. */
export class ApiError extends Error {
  override readonly name = "ApiError";
  constructor(
    /** The HTTP status; 0 where no answer came. */
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field: string | null = null,
  ) {
    super(message);
  }

  /** Whether the server was away, rather than unwilling. */
  get away(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504;
  }
}

/** A text that is being written, of which the server may not have the latest words. */
interface WrittenText {
  /** Whether there is anything that is on its way to the server. */
  isPending(): boolean;
  /** Waits until the server has everything. */
  settle(): Promise<void>;
}

/** The texts that are open. */
export const writtenTexts = new Set<WrittenText>();

/** What carries a text of its own, or is about no text that the server has. */
const withOwnText = /\/chapters\/(?!order$)[^/]+(\/(pages|versions))?$/;

/** What asks for something and changes nothing. */
const asking = /\/(search|preview|preflight)$/;

/** Longer than this, in letters, no request outlives the page that sends it (Fetch, 4.6: 64 kB in all). */
const mostOutliving = 8 * 1024;

/** What changes books and has no answer yet, by what the client calls it. */
const changing = new Map<string, { answer: Promise<void>; answered: () => void }>();

function begins(id: string): void {
  let answered = (): void => undefined;
  const answer = new Promise<void>((resolve) => (answered = resolve));
  changing.set(id, { answer, answered });
}

function ends(id: string): void {
  changing.get(id)?.answered();
  changing.delete(id);
}

// Milliseconds.
const leavingMs = 200;

/** What goes on where the page is left. */
const waiting = new Set<() => void>();
let isLeft = false;
addEventListener("pagehide", () => {
  isLeft = true;
  for (const goOn of waiting) goOn();
});
addEventListener("pageshow", () => void (isLeft = false));

/** Waits for all of these, or until the page is left: then what was asked for has to go out at once. */
function unlessLeft(awaited: readonly Promise<unknown>[]): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const goOn = (): void => resolve(undefined);
    if (isLeft) return goOn();
    waiting.add(goOn);
    const all = Promise.all(awaited).finally(() => waiting.delete(goOn));
    all.then(resolve, reject);
  });
}

// Whatever the server is to do with a book, it does with the text as the author sees it, and after what the author asked
// for before.
api.use({
  async onRequest({ id, request }) {
    const { method } = request;
    const { pathname } = new URL(request.url);
    if (method === "GET" || !pathname.startsWith("/api/books/") || withOwnText.test(pathname)) return;
    const before = [...changing.values()].map(({ answer }) => answer);
    if (!asking.test(pathname)) begins(id);
    const pending = [...writtenTexts].filter((text) => text.isPending());
    const { length } = await request.clone().text();
    const outliving = length < mostOutliving ? new Request(request, { keepalive: true }) : request;
    try {
      await unlessLeft(pending.map((text) => text.settle()));
    } catch (error) {
      // A browser may end the save a moment before it tells that the page is left.
      await unlessLeft([new Promise((resolve) => setTimeout(resolve, leavingMs))]);
      if (!isLeft) {
        ends(id);
        throw new ApiError(0, "unsaved", (error as Error).message);
      }
    }
    await unlessLeft(before);
    return outliving;
  },
  onResponse({ id }) {
    ends(id);
  },
  onError({ id }) {
    ends(id);
  },
});

/** Waits for a call and gives its answer, or throws an ApiError. */
export async function answerOf<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await call;
  } catch (error) {
    if (error instanceof ApiError) throw error;
    throw new ApiError(0, "away", "Vennet's server does not answer. What you write is kept in this browser.");
  }
  if (result.response.ok) {
    if (useSignedOut.getState()) useSignedOut.setState(false, true);
    return result.data as T;
  }
  throw errorFrom(result.response.status, result.error);
}

/**
 * Sends a form with files, which the typed client cannot, and gives the answer or throws an ApiError.
 * `onProgress` hears how much has left this computer, as a share from 0 to 1.
 */
export function sendForm<T>(
  path: string,
  form: FormData,
  {
    method = "POST",
    onProgress,
    signal,
  }: { method?: "POST" | "PUT"; onProgress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<T> {
  // fetch tells nothing of how far a form has come.
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open(method, path);
    request.responseType = "json";
    request.upload.onprogress = ({ loaded, total }) => onProgress?.(total > 0 ? loaded / total : 0);
    request.onload = () => {
      if (request.status >= 200 && request.status < 300) resolve(request.response as T);
      else reject(errorFrom(request.status, request.response));
    };
    request.onerror = () =>
      reject(new ApiError(0, "away", "Vennet's server does not answer. Try again in a moment."));
    request.onabort = () => reject(new ApiError(0, "cancelled", "Cancelled."));
    signal?.addEventListener("abort", () => request.abort());
    request.send(form);
  });
}

/** What the server answered instead, by its status and its body. */
export function errorFrom(status: number, body: unknown): ApiError {
  const { code, message, field } = (body ?? {}) as { code?: string; message?: string; field?: string };
  if (code === "signed-out") useSignedOut.setState(true, true);
  return new ApiError(status, code ?? "unknown", message ?? `The server answered ${status}.`, field ?? null);
}
