import { setTimeout as sleep } from "node:timers/promises";
import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { DataSource, type EntityManager } from "typeorm";
import { databaseOptions } from "./data-source.ts";
import { PatientDataSource } from "./patient-data-source.ts";

// MariaDB takes back the one that has changed less: what has the other rows besides wins.
const rows = 40;
const spare = rows + 1;
let patient: PatientDataSource;
let plain: DataSource;

beforeAll(async () => {
  const options = { ...databaseOptions(process.env["DATABASE_URL"]!), migrationsRun: false };
  patient = await new PatientDataSource(options).initialize();
  plain = await new DataSource(options).initialize();
  await plain.query(
    "CREATE TABLE tide (id int PRIMARY KEY, height int NOT NULL, by_whom varchar(20)) ENGINE=InnoDB",
  );
});
afterAll(async () => {
  await plain.query("DROP TABLE tide");
  await Promise.all([patient.destroy(), plain.destroy()]);
});
beforeEach(async () => {
  await plain.query("DELETE FROM tide");
  const values = Array.from({ length: spare }, (_, i) => `(${i + 1}, 0, NULL)`).join();
  await plain.query(`INSERT INTO tide VALUES ${values}`);
});

async function untilLastIsHeld(): Promise<void> {
  const free = "SELECT id FROM tide WHERE id = ? FOR UPDATE SKIP LOCKED";
  while ((await plain.query<unknown[]>(free, [rows])).length > 0) await sleep(5);
}

/** Holds all rows but the last, sees another hold that, which is to ask for the first, and asks for it. */
async function standInTheWay(begin: () => Promise<unknown>): Promise<void> {
  let other: Promise<unknown> = Promise.resolve();
  await plain.transaction(async (manager) => {
    await manager.query("UPDATE tide SET by_whom = 'first' WHERE id < ?", [rows]);
    other = begin();
    await Promise.race([untilLastIsHeld(), other]);
    await manager.query("UPDATE tide SET by_whom = 'first' WHERE id = ?", [rows]);
  });
  await other;
}

async function heightOf(id: number, asked: Pick<EntityManager, "query"> = plain): Promise<number> {
  return (await asked.query<[{ height: number }]>("SELECT height FROM tide WHERE id = ?", [id]))[0].height;
}

const heights = (): Promise<number[]> => Promise.all([heightOf(1), heightOf(rows)]);
const fromTheLast = "UPDATE tide SET height = height + 1 WHERE id IN (1, ?) ORDER BY id DESC";

test("a statement that the database ended for another is made once that one is through", async () => {
  await standInTheWay(() => patient.query(fromTheLast, [rows]));
  expect(await heights()).toEqual([1, 1]);
});

test("a transaction is begun anew as a whole, in its isolation", async () => {
  const seen: number[][] = [];
  const raise = async (manager: EntityManager): Promise<string> => {
    const before = await heightOf(spare, manager);
    await plain.query("UPDATE tide SET height = height + 1 WHERE id = ?", [spare]);
    seen.push([before, await heightOf(spare, manager)]);
    await manager.query("UPDATE tide SET height = height + 1 WHERE id = ?", [rows]);
    await manager.query("UPDATE tide SET height = height + 1 WHERE id = 1");
    return "raised";
  };
  let answer = "";
  await standInTheWay(async () => (answer = await patient.transaction("REPEATABLE READ", raise)));
  expect(answer).toBe("raised");
  expect(await heights()).toEqual([1, 1]);
  expect(seen).toEqual([
    [0, 0],
    [1, 1],
  ]);
});

test("without patience the same fails, and other errors are told at once", async () => {
  await expect(standInTheWay(() => plain.query(fromTheLast, [rows]))).rejects.toMatchObject({
    code: "ER_LOCK_DEADLOCK",
  });
  let tries = 0;
  const failing = patient.transaction((manager) => {
    tries++;
    return manager.query("INSERT INTO tide VALUES (1, 0, NULL)");
  });
  await expect(failing).rejects.toMatchObject({ code: "ER_DUP_ENTRY" });
  expect(tries).toBe(1);
});
