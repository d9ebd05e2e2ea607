import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { nextRun, ScheduleError } from "./next-run.ts";
import { PlannedRuns } from "./planned-runs.ts";

const shared = "https://drive.hesterley.example/s/refuge-r1";
const other = "https://causeways.example/";

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => void (server = await startTestServer()));
afterAll(async () => {
  await cause("reset");
  await server.close();
});
beforeEach(async () => {
  await cause("reset");
  author = await server.client().signUp();
  bookId = (await author.bringIn(`# T\n\n[Refuge](${shared}) and [wardens](${other}).`)).body.book.id;
});

const call = async (method: string, path: string, body?: unknown) =>
  author.call<any>(method, `/books/${bookId}${path}`, body);

/** Makes something happen on the stand-in drive. */
async function cause(event: string, share = ""): Promise<void> {
  await fetch(`http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}/~/drive.hesterley.example/.events`, {
    method: "POST",
    body: new URLSearchParams({ event, share }),
    redirect: "manual",
  });
}

async function run(request: Record<string, unknown> = {}) {
  const job = await call("POST", "/reach", request);
  return author.jobEnd(job.body);
}

test("each answer is kept: since when it is broken, when it was sound, and what is new in each run", async () => {
  await run();
  await cause("deleted", "refuge-r1");
  await run();
  const [broken] = (await call("GET", "/destinations")).body;
  expect(broken).toMatchObject({ address: shared, state: "broken" });
  expect(broken.lastSoundAt < broken.since).toBe(true);
  await run();
  await cause("reset");
  await run();

  const history = (await call("GET", `/destinations/history?address=${encodeURIComponent(shared)}`)).body;
  expect(history.map(({ state }: any) => state)).toEqual(["sound", "broken", "broken", "sound"]);
  expect(history[1].reason).toContain("404");
  const runs = (await call("GET", "/reach/runs")).body;
  expect(
    runs.map(({ asked, newlyBroken, wellAgain, counts }: any) => [
      asked,
      newlyBroken,
      wellAgain,
      counts.broken,
    ]),
  ).toEqual([
    [2, 0, 0, 0],
    [2, 1, 0, 1],
    [2, 0, 0, 1],
    [2, 0, 1, 0],
  ]);
});

test("a fresh answer is not asked for again until it is due, unless by hand", async () => {
  expect((await run({ which: "due" })).total).toBe(2);
  expect(await run({ which: "due" })).toMatchObject({ state: "done", total: 0 });
  expect((await run({ addresses: [other] })).total).toBe(1);
  const database = server.app.get<DataSource>(getDataSourceToken());
  await database.query(
    "UPDATE reach_outcome SET checkedAt = checkedAt - INTERVAL 25 HOUR WHERE bookId = ? AND destinationHash = SHA2(?, 256)",
    [bookId, other],
  );
  expect((await run({ which: "due" })).total).toBe(1);
  expect((await run({ which: "all" })).total).toBe(2);
});

describe("a plan", () => {
  // Common practice: five cron fields, as crontab has them.
  test.each([
    ["0 3 * * *", "2026-11-26T03:00:00.000Z"],
    ["0 3 * * 1", "2026-11-30T03:00:00.000Z"],
    ["30 4 1 * *", "2026-12-01T04:30:00.000Z"],
  ])("%s comes next at %s", (schedule, at) => {
    expect(nextRun(schedule, new Date("2026-11-25T10:00:00Z")).toISOString()).toBe(at);
  });

  test.each(["", "every night", "* * * *", "*/5 * * * *", "0,30 3 * * *", "0 0 31 2 *"])(
    "%j is refused",
    (schedule) => {
      expect(() => nextRun(schedule, new Date())).toThrow(ScheduleError);
    },
  );

  test("begins a run when its time has come, on one of several servers, and once for all that was missed", async () => {
    expect((await call("PATCH", "", { schedule: "often" })).body).toMatchObject({
      code: "bad-schedule",
      field: "schedule",
    });
    const planned = (await call("PATCH", "", { schedule: "0 3 * * *" })).body;
    expect(planned.nextRunAt).toMatch(/T03:00:00/);
    const plans = server.app.get(PlannedRuns);
    await plans.begin(new Date());
    expect((await call("GET", "/reach")).body).toEqual([]);
    const muchLater = new Date(Date.parse(planned.nextRunAt) + 5 * 24 * 60 * 60 * 1000);
    await Promise.all([plans.begin(muchLater), plans.begin(muchLater)]);
    const [job] = (await call("GET", "/reach")).body;
    expect(await author.jobEnd(job)).toMatchObject({ state: "done", total: 2 });
    expect((await call("GET", "/reach/runs")).body).toHaveLength(1);
    expect(Date.parse((await call("GET", "")).body.nextRunAt)).toBeGreaterThan(muchLater.getTime());
    expect((await call("PATCH", "", { schedule: null })).body.nextRunAt).toBeNull();
  });
});

test("a shared file is judged by who reads the book", async () => {
  await cause("narrowed", "refuge-r1");
  const narrow = async () =>
    (await call("GET", "/findings")).body.filter(({ rule }: any) => rule === "share-too-narrow");
  expect(await narrow()).toMatchObject([
    { text: "Refuge", message: expect.stringContaining("Causeway wardens") },
  ]);
  await call("PATCH", "", { audience: "Causeway wardens" });
  expect(await narrow()).toEqual([]);
});

test("findings follow answers; an acceptance holds until the answer changes", async () => {
  await cause("deleted", "refuge-r1");
  await run();
  const broken = async () =>
    (await call("GET", "/findings")).body.filter(({ rule }: any) => rule.startsWith("destination-"));
  const [finding] = await broken();
  expect(finding).toMatchObject({
    rule: "destination-broken",
    text: "Refuge",
    address: shared,
    accepted: null,
  });
  await call("PUT", "/acceptances", {
    subject: finding.subject,
    rule: finding.rule,
    reason: "It comes back in spring.",
  });
  await run();
  expect((await broken())[0].accepted).toBe("It comes back in spring.");
  await cause("reset");
  await cause("moved", "refuge-r1");
  await run();
  expect(await broken()).toMatchObject([{ rule: "destination-moved", accepted: null }]);
  // One press takes the new address over, one step takes it back.
  await call("POST", "/findings/mend", { rule: "destination-moved" });
  expect((await call("GET", "/links")).body.rows[0].destination).toBe(
    "https://drive.hesterley.example/s/archive-refuge-r1",
  );
});

test("a script learns whether the book may go out, and the report tells all of it", async () => {
  expect((await call("GET", "/checks")).body).toMatchObject({
    exitState: 0,
    fix: 0,
    lastRun: null,
    running: null,
  });
  await cause("deleted", "refuge-r1");
  const begun = await call("POST", "/checks");
  expect(begun.status).toBe(202);
  await author.jobEnd(begun.body);
  expect((await call("GET", "/checks")).body).toMatchObject({
    exitState: 1,
    stop: 0,
    fix: 1,
    lastRun: { asked: 2 },
  });

  const report = async (as: string) => {
    const answer = await fetch(`${server.url}/api/books/${bookId}/report?as=${as}`, {
      headers: { cookie: author.cookie },
    });
    return { type: answer.headers.get("content-type"), text: await answer.text() };
  };
  const page = await report("page");
  expect(page.type).toContain("text/html");
  for (const words of ["A destination is broken (1)", "<mark>Refuge</mark>", "Findings: 1 to fix.", shared])
    expect(page.text).toContain(words);
  const csv = await report("csv");
  expect(csv.text.split("\n")[1]).toContain("fix,destination-broken,A destination is broken,T,Refuge");
  expect(JSON.parse((await report("json")).text).findings).toHaveLength(1);
  expect((await report("pdf")).text).toContain("invalid");

  await author.call("PATCH", `/books/${bookId}`, { title: "<b>Walks</b>" });
  expect((await report("page")).text).not.toContain("<b>");
});
