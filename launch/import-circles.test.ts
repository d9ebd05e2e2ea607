import { expect, test } from "@jest/globals";
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join } from "node:path";

const root = join(import.meta.dirname, "..");

/** The source that a relative or `@vennet/core` import means; null for a package. */
function resolve(from: string, specifier: string): string | null {
  const path = specifier.startsWith("@vennet/core/")
    ? join("core", specifier.slice("@vennet/core/".length))
    : specifier.startsWith(".")
      ? join(dirname(from), specifier)
      : null;
  if (path === null) return null;
  const isFile = (file: string): boolean =>
    existsSync(join(root, file)) && statSync(join(root, file)).isFile();
  return [path, `${path}.ts`, `${path}.tsx`].find(isFile) ?? null;
}

/** What each source imports at its head, types included. */
function importsOfSources(rooms: readonly string[]): Map<string, string[]> {
  const sources = rooms.flatMap((room) =>
    readdirSync(join(root, room), { recursive: true, encoding: "utf8" })
      .map((path) => `${room}/${path}`)
      .filter((path) => /\.tsx?$/.test(path) && !/(^|\/)(node_modules|dist)\//.test(path)),
  );
  return new Map(
    sources.map((path) => {
      const text = readFileSync(join(root, path), "utf8");
      const named = [...text.matchAll(/^(?:import|export)\b[^;"]*?(?:from )?"([^"]+)";/gm)];
      return [path, named.map(([, specifier]) => resolve(path, specifier!)).filter((file) => file !== null)];
    }),
  );
}

/** The first circle that is found, as the files along it. */
function circle(imports: ReadonlyMap<string, string[]>): string[] | null {
  const done = new Set<string>();
  const walk = (file: string, way: string[]): string[] | null => {
    if (way.includes(file)) return [...way.slice(way.indexOf(file)), file];
    if (done.has(file)) return null;
    for (const next of imports.get(file) ?? []) {
      const found = walk(next, [...way, file]);
      if (found) return found;
    }
    done.add(file);
    return null;
  };
  for (const file of imports.keys()) {
    const found = walk(file, []);
    if (found) return found;
  }
  return null;
}

// The linter refuses circles of what runs, and takes no notice of imports of types.
test("no import closes a circle, not even one of types alone", () => {
  const imports = importsOfSources(["core", "server", "web", "standins", "e2e"]);
  expect([...imports.values()].flat().length).toBeGreaterThan(1_000);
  expect(circle(imports)).toBeNull();
  expect(
    circle(
      new Map([
        ["a.ts", ["b.ts"]],
        ["b.ts", ["c.ts"]],
        ["c.ts", ["b.ts"]],
      ]),
    ),
  ).toEqual(["b.ts", "c.ts", "b.ts"]);
});
