import type { Options } from "@vennet/core/publish/formats/option";
import type { ExportChoices } from "@vennet/core/publish/formats/formats";
import type { ComponentType } from "react";
import type { ExportWithProof } from "../../api/client";

/** What is chosen for an export: for the format that is open, and, for when it is opened again, for the others. */
export type Choices = ExportChoices;

/** What the fields of a format are given; `C` are its own choices. */
export interface FieldsProps<C> {
  chosen: C;
  /** Whether there is a file whose pages another format can tell. */
  hasPages: boolean;
  onChange: (to: Partial<C>) => void;
}

/** Everything that screens say and show of a format. */
export interface FormatOnScreen<C = never> {
  name: string;
  /** The words of the button that exports it. */
  action: string;
  about: string;
  /** As core has them, for their defaults. */
  options: Options;
  Fields: ComponentType<FieldsProps<C>>;
  /** What was chosen, in a few words each; what is usual is not said. */
  words: (chosen: C) => (string | false | undefined)[];
  /** What is settled below for this export and all that follow. */
  Settings?: ComponentType;
  /** Shows such a file as its readers see it; none where it is for going on elsewhere. */
  Reader?: ComponentType<{ bookId: string; proof: ExportWithProof }>;
  /** The very place in such a file at which the proof has found a link. */
  Found?: ComponentType<{ bookId: string; exportId: string; where: string }>;
}
