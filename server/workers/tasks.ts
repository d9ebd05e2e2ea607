import type { Task } from "./task.ts";

/** All heavy work. Each sort has a lane of its own, so that no export is in the way of who writes. */
export const tasks = {
  check: {
    processes: 2,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../checks/check-task.ts"),
  },
  deriveChapter: {
    processes: 2,
    limits: { minutes: 1, megabytes: 1024 },
    load: () => import("../chapters/derive-chapter-task.ts"),
  },
  editChapter: {
    processes: 2,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../history/edit-chapter-task.ts"),
  },
  previewEdit: {
    processes: 1,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../links/preview-edit-task.ts"),
  },
  searchChapters: {
    processes: 1,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../links/search-task.ts"),
  },
  preflight: {
    processes: 2,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../exports/preflight-task.ts"),
  },
  linksInFile: {
    processes: 1,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../files/links-in-file-task.ts"),
  },
  keptPage: {
    processes: 1,
    limits: { minutes: 1, megabytes: 1024 },
    load: () => import("../kept/kept-page-task.ts"),
  },
  drawPicture: {
    processes: 1,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../pictures/draw-picture-task.ts"),
  },
  tryPicture: {
    processes: 2,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../exports/try-picture-task.ts"),
  },
  readFont: {
    processes: 1,
    limits: { minutes: 1, megabytes: 2048 },
    load: () => import("../fonts/read-font-task.ts"),
  },
  setChapter: {
    processes: 1,
    limits: { minutes: 1, megabytes: 3072 },
    load: () => import("../exports/set-chapter-task.ts"),
  },
  exportBook: {
    processes: 2,
    limits: { minutes: 10, megabytes: 3072 },
    load: () => import("../exports/export-task.ts"),
  },
  // No short book waits for long ones. One process more than an account may have jobs under way.
  exportLongBook: {
    processes: 3,
    limits: { minutes: 10, megabytes: 3072 },
    load: () => import("../exports/export-task.ts"),
  },
  importManuscript: {
    processes: 3,
    limits: { minutes: 2, megabytes: 2048 },
    load: () => import("../import/import-task.ts"),
  },
  takeInVersion: {
    processes: 3,
    limits: { minutes: 2, megabytes: 2048 },
    load: () => import("../import/take-in-version-task.ts"),
  },
  readFinished: {
    processes: 2,
    limits: { minutes: 5, megabytes: 3072 },
    load: () => import("../finished/read-finished-task.ts"),
  },
  saveFinished: {
    processes: 2,
    limits: { minutes: 10, megabytes: 3072 },
    load: () => import("../finished/save-finished-task.ts"),
  },
  placesInFile: {
    processes: 1,
    limits: { minutes: 2, megabytes: 2048 },
    load: () => import("../files/places-in-file-task.ts"),
  },
  shelfFile: {
    processes: 1,
    limits: { minutes: 2, megabytes: 2048 },
    load: () => import("../shelf/shelf-file-task.ts"),
  },
  readPage: {
    processes: 1,
    limits: { minutes: 1 / 12, megabytes: 1024 },
    load: () => import("../reach/read-page-task.ts"),
  },
} satisfies Record<string, Task>;

/** The name of a sort of heavy work. */
export type TaskName = keyof typeof tasks;

/** For each task what goes in and what comes out. */
export type Tasks = {
  [K in TaskName]: Awaited<ReturnType<(typeof tasks)[K]["load"]>> extends {
    run: (input: infer Input, ...more: never[]) => infer Output;
  }
    ? { input: Input; output: Awaited<Output> }
    : never;
};
