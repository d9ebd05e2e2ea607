import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

/** The HTTP interface, typed by its own description. */
export const api = createClient<paths>({ baseUrl: "/" });

export type Account = components["schemas"]["AccountAnswer"];
export type Book = components["schemas"]["BookAnswer"];
export type LeftOut = components["schemas"]["LeftOutAnswer"];
export type ChapterListing = components["schemas"]["ChapterListingAnswer"];
export type Chapter = components["schemas"]["ChapterAnswer"];
export type Job = components["schemas"]["JobAnswer"];
export type CheckedDestination = components["schemas"]["DestinationAnswer"];
export type LinkState = CheckedDestination["state"];
export type ExportListing = components["schemas"]["ExportListingAnswer"];
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

/** Waits for a call and gives its answer, or throws an ApiError. */
export async function answerOf<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new ApiError(0, "away", "Vennet's server does not answer. What you write is kept in this browser.");
  }
  if (result.response.ok) return result.data as T;
  throw errorFrom(result.response.status, result.error);
}

/** Sends a form with files, which the typed client cannot, and gives the answer or throws an ApiError. */
export async function sendForm<T>(path: string, form: FormData): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { method: "POST", body: form });
  } catch {
    throw new ApiError(0, "away", "Vennet's server does not answer. Try again in a moment.");
  }
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return body as T;
  throw errorFrom(response.status, body);
}

function errorFrom(status: number, body: unknown): ApiError {
  const { code, message, field } = (body ?? {}) as { code?: string; message?: string; field?: string };
  return new ApiError(status, code ?? "unknown", message ?? `The server answered ${status}.`, field ?? null);
}
