import { kindNames } from "@vennet/core/destination/kinds/kinds";
import { finishedFormats, type FinishedFormat } from "@vennet/core/finished/finished-format";
import { ApiProperty, ApiPropertyOptional, PickType } from "@nestjs/swagger";
import { assertFonts, type BookFonts } from "@vennet/core/manuscript/book-fonts";
import {
  assertConventions,
  defaultConventions,
  type Conventions,
  type CountedBy,
} from "@vennet/core/manuscript/conventions";
import {
  assertLooks,
  type HoverStyle,
  type LinkLook,
  type LinkLooks,
  type UnderlineStyle,
} from "@vennet/core/manuscript/looks";
import { assertLayout, type PageLayout } from "@vennet/core/manuscript/page-layout";
import { assertPresets, type Preset } from "@vennet/core/publish/formats/formats";
import { IsInt, IsOptional, IsString, Max, MaxLength, Min } from "class-validator";
import { ExportChoicesShape, PageLayoutShape } from "../exports/export-choices.dto.ts";
import { FitsCore } from "../http/fits-core.ts";
import { IsLanguageTag } from "./language-tag.ts";
import { Words } from "../http/words.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export class NewBookRequest {
  @ApiProperty()
  @Words(500, "Give the book a title.")
  title: string;

  @ApiPropertyOptional({ description: "A BCP 47 tag, as “en” or “de”." })
  @MayBeLeftOut()
  @IsLanguageTag()
  language?: string;
}

class LinkLookShape implements LinkLook {
  @ApiProperty({ description: "As #rrggbb." })
  colour: string;
  @ApiProperty({ enum: ["none", "solid", "dotted", "dashed"] })
  underline: UnderlineStyle;
  @ApiProperty()
  bold: boolean;
  @ApiProperty({ enum: ["same", "underlined", "shaded"], description: "On a web page, pointed at." })
  hover: HoverStyle;
}

/** The look of each kind of link. */
export class LinkLooksShape {
  [kind: string]: LinkLookShape;
}
for (const kind of kindNames) ApiProperty({ type: LinkLookShape })(LinkLooksShape.prototype, kind);

/** What the book counts, and where its notes stand. */
export class ConventionsShape implements Conventions {
  @ApiProperty({ description: "How many levels of headings carry a number, from 0 to 5." })
  headings: number;
  @ApiProperty({ enum: ["chapter", "book"], nullable: true, type: String })
  figures: CountedBy | null;
  @ApiProperty({ enum: ["chapter", "book"], nullable: true, type: String })
  tables: CountedBy | null;
  @ApiProperty({ enum: ["chapter", "book"] })
  notes: CountedBy;
  @ApiProperty({ enum: ["page", "chapter", "book"] })
  notesAt: Conventions["notesAt"];
  @ApiProperty({ example: defaultConventions.returnWords })
  returnWords: string;
}

/** The families of the author's own, by what is set in them; null for the usual. */
class BookFontsShape implements BookFonts {
  @ApiProperty({ type: String, nullable: true })
  text: string | null;
  @ApiProperty({ type: String, nullable: true })
  headings: string | null;
  @ApiProperty({ type: String, nullable: true })
  code: string | null;
}

/** A set of choices by a name. */
export class PresetShape {
  @ApiProperty()
  name: string;
  @ApiProperty({ type: ExportChoicesShape })
  options: ExportChoicesShape;
}

export class ChangeBookRequest {
  @ApiPropertyOptional()
  @MayBeLeftOut()
  @Words(500, "Give the book a title.")
  title?: string;

  @ApiPropertyOptional()
  @MayBeLeftOut()
  @Words(200, "Give the author's name.")
  author?: string;

  @ApiPropertyOptional()
  @MayBeLeftOut()
  @IsLanguageTag()
  language?: string;

  @ApiPropertyOptional({ type: LinkLooksShape, description: "How the links of each kind look." })
  @MayBeLeftOut()
  @FitsCore("isLooks", assertLooks)
  looks?: LinkLooks;

  @ApiPropertyOptional({ type: ConventionsShape })
  @MayBeLeftOut()
  @FitsCore("isConventions", assertConventions)
  conventions?: Conventions;

  @ApiPropertyOptional({ type: PageLayoutShape, description: "How the pages of the PDF are laid out." })
  @MayBeLeftOut()
  @FitsCore("isLayout", assertLayout)
  layout?: PageLayout;

  @ApiPropertyOptional({ type: BookFontsShape, description: "In which of the author’s own fonts it is set." })
  @MayBeLeftOut()
  @FitsCore("isFonts", assertFonts)
  fonts?: BookFonts;

  @ApiPropertyOptional({ type: [PresetShape], description: "Its sets of choices for exports, by name." })
  @MayBeLeftOut()
  @FitsCore("isPresets", assertPresets)
  presets?: Preset[];

  @ApiPropertyOptional({ description: "Who reads the book: `anyone`, or the name of a group." })
  @MayBeLeftOut()
  @Words(200, "Say who reads the book: anyone, or the name of a group.")
  audience?: string;

  @ApiPropertyOptional({ description: "For how many hours an answer of a server counts as fresh." })
  @MayBeLeftOut()
  @IsInt()
  @Min(1, { message: "Answers are kept for an hour at least." })
  @Max(8760, { message: "Answers are kept for a year at most." })
  freshHours?: number;

  @ApiPropertyOptional({
    type: String,
    nullable: true,
    description: "When all that is overdue is checked: five cron fields in UTC, or null for never.",
  })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  schedule?: string | null;
}

/** How many links of a book are in each state. Links that are not asked count as unchecked. */
export class LinkStatesAnswer {
  @ApiProperty()
  sound: number;
  @ApiProperty()
  moved: number;
  @ApiProperty()
  guarded: number;
  @ApiProperty()
  broken: number;
  @ApiProperty()
  unsure: number;
  @ApiProperty()
  unchecked: number;
}

/** The finished file that a publication is. */
class FinishedFileShape {
  @ApiProperty({ enum: finishedFormats })
  format: FinishedFormat;
  @ApiProperty()
  fileName: string;
  @ApiProperty()
  pages: number;
  @ApiProperty({ description: "Whether the file tells its structure, so that links can be put into it." })
  isTagged: boolean;
  @ApiProperty({ description: "Whether a signature stands in it, which any change breaks." })
  isSigned: boolean;
  @ApiProperty({
    description: "Whether programs have to search for what is in it; a saved version mends that.",
  })
  hasBrokenTable: boolean;
  @ApiProperty({ type: String, nullable: true, description: "With which it opens, where it needs one." })
  password: string | null;
}

export class BookAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  title: string;
  @ApiProperty()
  author: string;
  @ApiProperty()
  language: string;
  @ApiProperty()
  modifiedAt: string;
  @ApiProperty({
    type: FinishedFileShape,
    nullable: true,
    description: "The finished file that it is; null for a book, which has a manuscript.",
  })
  finished: FinishedFileShape | null;
  @ApiProperty({ type: LinkLooksShape })
  looks: LinkLooks;
  @ApiProperty({ type: ConventionsShape })
  conventions: Conventions;
  @ApiProperty()
  chapters: number;
  @ApiProperty()
  words: number;
  @ApiProperty()
  links: number;
  @ApiProperty({ type: PageLayoutShape })
  layout: PageLayout;
  @ApiProperty({ type: BookFontsShape })
  fonts: BookFonts;
  @ApiProperty({ type: [PresetShape] })
  presets: Preset[];
  @ApiProperty({ description: "Who reads it: `anyone`, or the name of a group." })
  audience: string;
  @ApiProperty({ description: "For how many hours an answer of a server counts as fresh." })
  freshHours: number;
  @ApiProperty({ type: String, nullable: true, description: "Five cron fields in UTC." })
  schedule: string | null;
  @ApiProperty({ type: String, nullable: true, description: "When the next planned run begins." })
  nextRunAt: string | null;
}

/** How the web links of a book are. */
export class BookStatesAnswer {
  @ApiProperty()
  bookId: string;
  @ApiProperty({ description: "The web links by state." })
  webLinks: LinkStatesAnswer;
}

/** A book that was deleted and can be brought back. */
export class DeletedBookAnswer extends PickType(BookAnswer, ["id", "title", "author"]) {
  @ApiProperty()
  deletedAt: string;
  @ApiProperty({ description: "When it goes for good by itself." })
  keptUntil: string;
}
