import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

// WCAG 2.2 at level AA, by axe-core's rules for it.
export const rules = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

/** What axe finds in a view: on light paper by all rules, on dark paper by those of its colours, by which alone it differs. */
export async function violations(page: Page): Promise<string[]> {
  // A frame in which an exported page is shown lets no script run; its pages are looked over by themselves.
  const axe = (): AxeBuilder => new AxeBuilder({ page }).exclude("iframe").setLegacyMode();
  const onPaper = async (colorScheme: "light" | "dark"): Promise<void> => {
    await page.emulateMedia({ colorScheme });
    await page.evaluate((theme) => {
      document.documentElement.dataset["theme"] = theme;
    }, colorScheme);
  };
  const light = await axe().withTags(rules).analyze();
  await onPaper("dark");
  const dark = await axe().withRules(["color-contrast"]).analyze();
  await onPaper("light");
  return Object.entries({ light, dark }).flatMap(([paper, { violations: found }]) =>
    found.map(({ id, nodes }) => `${id}, ${paper}: ${nodes.map((node) => node.target.join(" ")).join("; ")}`),
  );
}
