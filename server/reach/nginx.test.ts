import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { gzipSync } from "node:zlib";
import { afterAll, expect, test } from "@jest/globals";
import { startTestServer } from "../test/test-server.ts";

// A web server that this project did not write: it lies in a package of Debian, and is fetched without being installed. What it
// answers by itself (redirects, refusals, limits, errors) is judged as what readers would meet.

const folder = mkdtempSync(join(tmpdir(), "vennet-nginx-"));
let nginx: ChildProcess | null = null;
afterAll(async () => {
  if (nginx && nginx.exitCode === null) {
    nginx.kill();
    await once(nginx, "exit");
  }
  rmSync(folder, { recursive: true, force: true });
});

function fetched(): string | null {
  try {
    execFileSync("apt-get", ["download", "nginx"], { cwd: folder, stdio: "ignore", timeout: 120_000 });
    const [file] = readdirSync(folder).filter((name) => name.endsWith(".deb"));
    execFileSync("dpkg", ["-x", file!, "out"], { cwd: folder });
    const program = join(folder, "out/usr/sbin/nginx");
    execFileSync(program, ["-v"], { stdio: "ignore" });
    return program;
  } catch {
    process.emitWarning("The package with nginx could not be fetched or run: its test is left out.");
    return null;
  }
}

const configuration = (port: number): string => `
daemon off; master_process off; pid ${folder}/pid; error_log stderr crit;
events { worker_connections 64; }
http {
  access_log off; types { text/html html; }
  client_body_temp_path ${folder}/a; proxy_temp_path ${folder}/b; fastcgi_temp_path ${folder}/c; uwsgi_temp_path ${folder}/d; scgi_temp_path ${folder}/e;
  limit_req_zone $uri zone=once:1m rate=1r/m;
  server {
    listen 127.0.0.1:${port}; root ${folder}/pages; absolute_redirect off; default_type text/html;
    location = /.name { default_type application/json; return 200 '"known"'; }
    location = /page { try_files /page.html =404; }
    location = /packed { gzip on; gzip_min_length 1; gzip_types text/html; try_files /page.html =404; }
    location = /torn { add_header content-encoding gzip; try_files /torn.html =404; }
    location = /moved { return 301 /page; }
    location = /away { return 302 /page; }
    location = /round { return 302 /round; }
    location = /members { auth_basic "Members"; auth_basic_user_file ${folder}/members; try_files /page.html =404; }
    location = /closed { deny all; }
    location = /gone { return 410; }
    location = /fault { return 500; }
    location = /dropped { return 444; }
    location = /no-head { if ($request_method = HEAD) { return 405; } try_files /page.html =404; }
    location = /limited { limit_req zone=once; limit_req_status 429; try_files /page.html =404; }
  }
}`;

/** Starts it on a port that was free a moment ago; on another where somebody was faster. */
async function started(program: string): Promise<number> {
  for (let tries = 0; tries < 5; tries++) {
    const probe = createServer().listen(0, "127.0.0.1");
    await once(probe, "listening");
    const { port } = probe.address() as AddressInfo;
    probe.close();
    await once(probe, "close");
    writeFileSync(join(folder, "nginx.conf"), configuration(port));
    nginx = spawn(program, ["-p", folder, "-c", join(folder, "nginx.conf")], { stdio: "ignore" });
    for (let waited = 0; waited < 100 && nginx.exitCode === null; waited++) {
      const answer = await fetch(`http://127.0.0.1:${port}/.name`).catch(() => null);
      if (answer) return port;
      await sleep(50);
    }
  }
  throw new Error("nginx did not start.");
}

const program = fetched();

(program ? test : test.skip)("what nginx answers by itself is judged as readers would meet it", async () => {
  mkdirSync(join(folder, "pages"));
  const words = "The sand lies bare for four hours, and the fifth post stands dry for two. ";
  const page = `<!doctype html><title>Tides of the Sound</title><h1 id="low">Low water</h1><p>${words.repeat(5)}`;
  writeFileSync(join(folder, "pages/index.html"), page);
  writeFileSync(join(folder, "pages/page.html"), page);
  writeFileSync(join(folder, "pages/torn.html"), gzipSync(page.repeat(50)).subarray(20, 90));
  writeFileSync(join(folder, "members"), "orla:{PLAIN}low\n");
  const port = await started(program!);
  const server = await startTestServer({ STANDIN_WEB_PORT: String(port), REACH_RETRY_MS: "10" });
  const author = await server.client().signUp();
  const expected: Record<string, string> = {
    "/page": "sound ok",
    "/page#low": "sound ok",
    "/page#high": "broken no-part",
    "/page#:~:text=four%20hours": "sound ok",
    "/page#:~:text=five%20hours": "broken no-text",
    "/packed#low": "sound ok",
    "/torn": "unsure undecodable",
    "/moved": "moved moved",
    "/away": "sound redirected",
    "/round": "broken loop",
    "/members": "guarded guarded",
    "/closed": "guarded guarded",
    "/none": "broken not-found",
    "/gone": "broken gone",
    "/fault": "unsure status",
    "/dropped": "unsure dropped",
    "/no-head": "sound ok",
    "/limited": "unsure status",
  };
  const links = Object.keys(expected).map((path, i) => `[w${i}](<http://nginx.test${path}>)`);
  const { body } = await author.bringIn(`# T\n\n${links.join(" ")}\n`);
  const job = await author.call<{ id: string }>("POST", `/books/${body.book.id}/reach`);
  await author.jobEnd(job.body);
  const destinations = await author.call<{ address: string; state: string; code: string }[]>(
    "GET",
    `/books/${body.book.id}/destinations`,
  );
  expect(
    Object.fromEntries(
      destinations.body.map(({ address, state, code }) => [
        address.replace("http://nginx.test", ""),
        `${state} ${code}`,
      ]),
    ),
  ).toEqual(expected);
  await server.close();
});
