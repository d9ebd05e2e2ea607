import type { ExportReading, FormatTraits } from "../proof/exported-link.ts";

export const flowing: FormatTraits = {
  isPaged: false,
  keepsRelative: false,
  hasOwnNotes: false,
  hasTitle: true,
  opensWindows: false,
  hasRoles: false,
};
export const paged: FormatTraits = { ...flowing, isPaged: true };

/** What reading a file without any link gives. */
export const emptyReading: ExportReading = {
  traits: flowing,
  pages: null,
  files: new Map(),
  pageOfPlace: new Map(),
  links: [],
  pictures: new Map(),
  placesInOrder: [],
  placesAside: new Set(),
  lists: [],
  linkedPages: [],
  notes: [],
  faults: [],
};
