import { ApiExtraModels, ApiProperty, ApiPropertyOptional, getSchemaPath } from "@nestjs/swagger";
import type { LeftOut } from "@vennet/core/import/left-out";
import type { ArrivalMend, ArrivalVerdict } from "@vennet/core/import/arrival/arrival-proof";
import type { ArrivalGroup, GroupedArrival, ToldGroup } from "@vennet/core/import/arrival/group-arrival";
import type { Side } from "@vennet/core/import/new-version/merge-version";
import type { TextPart } from "@vennet/core/manuscript/versions";
import { ArrayMaxSize, IsArray, IsIn, IsString, IsUrl, MaxLength } from "class-validator";
import { BookAnswer } from "../books/books.dto.ts";
import { StepAnswer } from "../history/history.dto.ts";
import { Trimmed } from "../http/words.ts";
import type { Arrival } from "./arrival.entity.ts";
import type { ShownChapter, ShownClash, ShownLink, ShownVersion } from "./take-in-version-task.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

const sides: Side[] = ["here", "elsewhere"];
const verdicts: ArrivalVerdict[] = ["intact", "changed", "left-out", "lost", "extra"];

export class ImportRequest {
  @ApiPropertyOptional({
    description: "The book's title; else the first level-1 heading, else the file's name.",
  })
  @MayBeLeftOut()
  @Trimmed()
  @IsString()
  @MaxLength(500)
  title?: string;

  @ApiPropertyOptional({ description: "The web address from which relative links start." })
  @MayBeLeftOut()
  @IsUrl(
    { protocols: ["http", "https"], require_protocol: true, require_tld: false },
    {
      message:
        "The address from which relative links start is a whole web address, as https://tides.example/guide/.",
    },
  )
  baseAddress?: string;

  @ApiPropertyOptional({
    enum: ["yes"],
    description: "Whether nothing is kept until its author has looked at it.",
  })
  @MayBeLeftOut()
  @IsIn(["yes"])
  review?: "yes";

  @ApiPropertyOptional({
    enum: ["yes"],
    description: "Of one that was looked at: whether its pictures on the web are fetched now.",
  })
  @MayBeLeftOut()
  @IsIn(["yes"])
  fetchPictures?: "yes";

  @ApiPropertyOptional({
    enum: ["version"],
    description: "Whether it is a new version of what the book has; else it becomes chapters behind those.",
  })
  @MayBeLeftOut()
  @IsIn(["version"])
  as?: "version";
}

export class KeepRequest {
  @ApiPropertyOptional({ description: "The book's title; else the one that it was brought in with." })
  @MayBeLeftOut()
  @Trimmed()
  @IsString()
  @MaxLength(500)
  title?: string;

  @ApiPropertyOptional({
    enum: sides,
    isArray: true,
    description:
      "Which text is taken at each clash of a new version, by its number; where none is given, the one here.",
  })
  @MayBeLeftOut()
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsIn(sides, { each: true })
  choices?: Side[];
}

class ArrivedLinkAnswer {
  @ApiProperty()
  words: string;
  @ApiProperty({ description: "Where it leads, as the file says it." })
  href: string;
  @ApiProperty({ type: String, nullable: true, description: "Its place in the file, as “line 12”." })
  where: string | null;
  @ApiProperty()
  reason: string;
}

class ArrivalGroupAnswer implements ArrivalGroup {
  @ApiProperty({ enum: verdicts })
  verdict: ArrivalVerdict;
  @ApiProperty({ description: "What all links of its sort are called." })
  sort: string;
  @ApiProperty({ enum: ["base-address", "places"], nullable: true })
  mend: ArrivalMend | null;
  @ApiProperty()
  count: number;
  @ApiProperty({ type: [ArrivedLinkAnswer], description: "The first of them; the table has all." })
  links: ArrivedLinkAnswer[];
}

class ArrivalCountsAnswer {
  @ApiProperty()
  intact: number;
  @ApiProperty()
  changed: number;
  @ApiProperty()
  "left-out": number;
  @ApiProperty()
  lost: number;
  @ApiProperty()
  extra: number;
}

class LeftOutAnswer implements Omit<LeftOut, "sort" | "href"> {
  @ApiProperty({
    type: String,
    nullable: true,
    description: "Its place in the file, in words that fit the format, as “line 12”.",
  })
  where: string | null;
  @ApiProperty()
  what: string;
  @ApiProperty()
  why: string;
}

class ToldGroupAnswer implements ToldGroup {
  @ApiProperty()
  sort: string;
  @ApiProperty()
  count: number;
  @ApiProperty({ type: [LeftOutAnswer] })
  items: LeftOutAnswer[];
}

/** A manuscript file compared with what was made of it. */
export class ArrivalAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  fileName: string;
  @ApiProperty()
  createdAt: Date;
  @ApiProperty({
    type: ArrivalCountsAnswer,
    nullable: true,
    description: "Null where the second reader could not read the file.",
  })
  counts: ArrivalCountsAnswer | null;
  @ApiProperty({
    type: [ArrivalGroupAnswer],
    description: "Links that are not as they were, like ones together.",
  })
  groups: ArrivalGroupAnswer[];
  @ApiProperty({ type: [ToldGroupAnswer], description: "What else could not be taken over as it was." })
  told: ToldGroupAnswer[];
}

/** @param arrival with its groups as they are kept */
export function arrivalAnswer({ id, fileName, createdAt, grouped }: Arrival): ArrivalAnswer {
  const { counts, groups, told } = JSON.parse(grouped) as GroupedArrival;
  return { id, fileName, createdAt, counts, groups, told };
}

class TextPartAnswer implements TextPart {
  @ApiProperty({ enum: ["same", "added", "removed"] })
  kind: TextPart["kind"];
  @ApiProperty()
  text: string;
}

class ShownLinkAnswer implements ShownLink {
  @ApiProperty({ enum: ["added", "removed", "changed"] })
  kind: ShownLink["kind"];
  @ApiProperty()
  text: string;
  @ApiProperty({ type: String, nullable: true })
  before: string | null;
  @ApiProperty({ type: String, nullable: true })
  after: string | null;
}

class ClashAnswer implements ShownClash {
  @ApiProperty()
  number: number;
  @ApiProperty({ description: "The text as it is in the book." })
  here: string;
  @ApiProperty({ description: "The text of the new version." })
  elsewhere: string;
  @ApiProperty({ type: [TextPartAnswer], description: "Both in one: what was removed is here alone." })
  parts: TextPartAnswer[];
}

class ShownChapterAnswer implements ShownChapter {
  @ApiProperty()
  title: string;
  @ApiProperty({ enum: ["new", "changed", "same", "gone"] })
  kind: ShownChapter["kind"];
  @ApiProperty({
    type: "array",
    items: { type: "array", items: { $ref: getSchemaPath(TextPartAnswer) } },
    description: "The first of its paragraphs that are others.",
  })
  paragraphs: TextPartAnswer[][];
  @ApiProperty()
  changedParagraphs: number;
  @ApiProperty({ type: [ShownLinkAnswer] })
  links: ShownLinkAnswer[];
  @ApiProperty()
  changedLinks: number;
  @ApiProperty({ type: [ClashAnswer], description: "Stretches that were changed here and elsewhere." })
  clashes: ClashAnswer[];
}

class LinkCountsAnswer {
  @ApiProperty()
  added: number;
  @ApiProperty()
  changed: number;
  @ApiProperty()
  removed: number;
}

/** What a new version of a manuscript does to its book. */
@ApiExtraModels(TextPartAnswer)
class NewVersionAnswer implements ShownVersion {
  @ApiProperty({ type: [ShownChapterAnswer] })
  chapters: ShownChapterAnswer[];
  @ApiProperty({ description: "How many chapters stay as they are." })
  same: number;
  @ApiProperty()
  links: LinkCountsAnswer;
  @ApiProperty({ description: "Whether the text as it was brought in last is known." })
  hasBase: boolean;
}

export class WebPicturesAnswer {
  @ApiProperty({ description: "How many can be fetched." })
  count: number;
  @ApiProperty({ type: [String], description: "The hosts that would be asked." })
  hosts: string[];
}

/** What an import came to. */
export class ImportAnswer {
  @ApiProperty({ type: BookAnswer, nullable: true, description: "Null while it waits to be looked at." })
  book: BookAnswer | null;
  @ApiProperty({ type: WebPicturesAnswer, description: "Pictures on the web that did not come along." })
  webPictures: WebPicturesAnswer;
  @ApiProperty()
  title: string;
  @ApiProperty({ description: "How many chapters came, and links in them." })
  chapters: number;
  @ApiProperty()
  links: number;
  @ApiProperty()
  arrival: ArrivalAnswer;
  @ApiProperty({
    type: NewVersionAnswer,
    nullable: true,
    description: "Of a new version: what it does to the book.",
  })
  version: NewVersionAnswer | null;
  @ApiProperty({ type: StepAnswer, nullable: true, description: "The step by which it was taken in." })
  step: StepAnswer | null;
}
