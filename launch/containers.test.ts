import { describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { toRun } from "./debian-packages.mjs";

const read = (path: string): string => readFileSync(join(import.meta.dirname, "..", path), "utf8");
const dockerfile = read("Dockerfile");
const compose = read("compose.yaml");
const { scripts, engines } = JSON.parse(read("package.json")) as {
  scripts: Record<string, string>;
  engines: { node: string };
};
/** The names that the server reads from its environment. */
const settings = new Set(
  [...read("server/settings.ts").matchAll(/(?:env\[|whole\(\s*|flag\(\s*|oneOf\(\s*)"([A-Z_]+)"/g)].map(
    ([, name]) => name!,
  ),
);

describe("the container's files are in step with the launch", () => {
  test("the image has the Node.js and the Debian packages that the server needs", () => {
    const [, major] = /^FROM node:(\d+)/m.exec(dockerfile)!;
    expect(major).toBe(read(".nvmrc").trim());
    expect(engines.node).toContain(`>=${major}`);
    const [, installed] = /apt-get install -y --no-install-recommends ([^\\]+)/.exec(dockerfile)!;
    expect(installed!.trim().split(" ")).toEqual(toRun);
  });

  test("it installs, builds and starts as the launch does", () => {
    const install = read("launch/install.mjs");
    for (const option of ["--no-save", "--no-audit", "--no-fund", "--loglevel=error"]) {
      expect(install).toContain(option);
      expect(dockerfile).toContain(option);
    }
    expect(dockerfile).toContain("node launch/build.mjs");
    const [, command] = /^CMD \["npm", "run", "(\w+)"\]$/m.exec(dockerfile)!;
    expect(scripts[command!]).toBe("node launch/serve.mjs");
    const [, port] = /PORT=(\d+)/.exec(dockerfile)!;
    expect(dockerfile).toContain(`EXPOSE ${port}`);
    expect(compose).toContain(`127.0.0.1:${port}:${port}`);
  });

  test("what they set is what the server reads", () => {
    const [, block] = /server:[\s\S]*?environment:\n([\s\S]*?)\n {4}volumes:/.exec(compose)!;
    const named = [...block!.matchAll(/^ {6}([A-Z_]+):/gm)].map(([, name]) => name!);
    expect(named.length).toBeGreaterThan(5);
    for (const name of [
      ...named,
      ...[...dockerfile.matchAll(/ENV (.*)/g)].flatMap(([, line]) =>
        line!.split(" ").map((pair) => pair.split("=")[0]!),
      ),
    ])
      expect([name, settings.has(name)]).toEqual([name, true]);
  });

  test("the database of the composition is set as that of the launch", () => {
    const launch = read("launch/database.mjs");
    const [, command] = /mariadb:[\s\S]*?command: (.*)/.exec(compose)!;
    for (const option of command!.split(" ")) expect(launch).toContain(option);
  });
});

test("every setting is told of in the operator's guide, and no other", () => {
  const told = new Set([...read("docs/operating.md").matchAll(/^\| `([A-Z_]+)`/gm)].map(([, name]) => name!));
  expect([...settings].filter((name) => !told.has(name))).toEqual([]);
  expect([...told].filter((name) => !settings.has(name))).toEqual([]);
});
