import { expect, test } from "@jest/globals";
import { killTable } from "@vennet/core/proof/mutations/kill-table";
import { exportsToDamage } from "../test/exports-to-damage.ts";

/** How many kinds of damage there are to be. */
const kinds = 70;

// `npm run mutate` does the same with ten generated books, at three places of each.
test("no damage to an exported file escapes the proof, in any format", async () => {
  const rows = await killTable(await exportsToDamage(2), 1, 7);
  expect(rows.filter(({ done, killed }) => killed < done)).toEqual([]);
  expect(new Set(rows.filter(({ done }) => done > 0).map(({ mutation }) => mutation)).size).toBeGreaterThan(
    kinds,
  );
});
