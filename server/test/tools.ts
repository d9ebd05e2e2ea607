import { execFile } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const folder = mkdtempSync(join(tmpdir(), "vennet-exports-"));

/** Keeps bytes as a file for a tool to read, and gives its path. */
export function kept(name: string, bytes: Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

/** Runs a tool to its end; the server under test, which shares this process, goes on meanwhile. */
export function tool(command: string, ...args: string[]): Promise<{ status: number; output: string }> {
  return new Promise((resolve) => {
    execFile(command, args, { maxBuffer: 1 << 26 }, (error, stdout, stderr) =>
      resolve({
        status: typeof error?.code === "number" ? error.code : error ? -1 : 0,
        output: stdout + stderr,
      }),
    );
  });
}

/** What qpdf says of a PDF's syntax (ISO 32000). */
export const qpdf = async (path: string): Promise<string> => (await tool("qpdf", "--check", path)).output;

/** EPUBCheck, Debian's; it knows EPUB 3.2, of which 3.3 changes nothing that these books use. */
export const epubcheck = (path: string) =>
  // A short run is over before the second compiler has paid for itself.
  tool("java", "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-jar", "/usr/share/java/epubcheck.jar", path);
