import { expect, test } from "@jest/globals";
import { PDFDocument } from "@cantoo/pdf-lib";
import { redDot } from "../test/red-dot.ts";
import { drawnBoxes } from "./drawn-boxes.ts";
import { getDocument, OPS } from "./pdf-js.ts";

test("pictures and shapes are where a page draws them, also within forms that it draws", async () => {
  const inner = await PDFDocument.create();
  const picture = await inner.embedPng(redDot);
  const sheet = inner.addPage([200, 100]);
  sheet.drawImage(picture, { x: 20, y: 10, width: 60, height: 30 });
  sheet.drawRectangle({ x: 100, y: 10, width: 50, height: 20 });
  const document = await PDFDocument.create();
  const [form] = await document.embedPdf(await inner.save());
  // Twice as large, and moved.
  document.addPage([500, 500]).drawPage(form!, { x: 50, y: 200, xScale: 2, yScale: 2 });
  const shown = await getDocument({ data: await document.save() }).promise;
  const operators = await (await shown.getPage(1)).getOperatorList();
  await shown.loadingTask.destroy();
  const { pictures, shapes } = drawnBoxes(operators, OPS);
  expect(pictures.map((box) => box.map(Math.round))).toEqual([[90, 220, 210, 280]]);
  expect(shapes.map((box) => box.map(Math.round))).toContainEqual([250, 220, 350, 260]);
});
