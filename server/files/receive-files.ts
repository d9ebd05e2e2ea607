import type { Readable } from "node:stream";
import { CodedError } from "@vennet/core/errors";
import busboy from "busboy";
import type { Request } from "express";
import { Problem } from "../errors/problem.ts";
import { uploadedName, uploadLimit } from "./uploaded-file.ts";

/**
 * Of files that were received: what was made of those that were taken, and why the others were not.
 * @throws whatever is no refusal
 */
export function takenAndRefused<T>(results: readonly PromiseSettledResult<T>[]): {
  taken: T[];
  refused: { code: string; message: string }[];
} {
  const taken: T[] = [];
  const refused: { code: string; message: string }[] = [];
  for (const result of results) {
    if (result.status === "fulfilled") taken.push(result.value);
    else if (result.reason instanceof Problem || result.reason instanceof CodedError)
      refused.push({ code: result.reason.code, message: result.reason.message });
    else throw result.reason;
  }
  return { taken, refused };
}

/**
 * Reads the files of a form one after the other, each as a stream, and gives what was made of them. A file
 * that is refused does not keep the others from being taken.
 */
export async function receiveFiles<T>(
  request: Request,
  take: (name: string, content: Readable) => Promise<T>,
): Promise<PromiseSettledResult<T>[]> {
  if (!request.is("multipart/form-data"))
    throw new Problem(415, "media-type", "Send the files as a form (multipart/form-data).");
  const parser = busboy({ headers: request.headers, limits: { fileSize: uploadLimit + 1 } });
  const taken: Promise<PromiseSettledResult<T>>[] = [];
  let last: Promise<unknown> = Promise.resolve();
  await new Promise<void>((resolve, reject) => {
    parser.on("file", (_field, content, { filename }) => {
      const name = uploadedName({ originalname: filename ?? "" }) || "file";
      const result = last.then(() => take(name, content));
      last = result.catch(() => content.resume());
      taken.push(
        result.then(
          (value) => ({ status: "fulfilled" as const, value }),
          (reason: unknown) => ({ status: "rejected" as const, reason }),
        ),
      );
    });
    parser.on("close", resolve);
    parser.on("error", (error: Error) =>
      reject(new Problem(400, "bad-form", `The form could not be read: ${error.message}`)),
    );
    request.on("aborted", () => parser.destroy(new Error("the sender broke off")));
    request.pipe(parser);
  });
  return Promise.all(taken);
}
