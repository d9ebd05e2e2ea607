import { execFile } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { SaxesParser } from "saxes";

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

/** The web addresses of a PDF as poppler reads them. */
export async function popplerAddresses(path: string): Promise<string[]> {
  const lines = (await tool("pdfinfo", "-url", path)).output.split("\n");
  return lines.flatMap((line) => /^\s*\d+\s+Annotation\s+(.*)$/.exec(line)?.[1]?.trim() ?? []);
}

/** The addresses of an e-book by a plain XML parse, in the order of its files. */
export function epubAddresses(bytes: Buffer): string[] {
  const found: string[] = [];
  const files = unzipSync(bytes);
  for (const name of Object.keys(files)
    .filter((file) => file.endsWith(".xhtml"))
    .sort()) {
    const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false } as { xmlns: false });
    parser.on("opentag", (tag) => {
      const href = tag.attributes["href"] as string | undefined;
      if (tag.name === "a" && /^[a-z]+:/.test(href ?? "")) found.push(href!);
    });
    parser.write(strFromU8(files[name]!)).close();
  }
  return found;
}
