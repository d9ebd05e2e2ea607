import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import type { PageLayout, TrimName } from "@vennet/core/manuscript/page-layout";
import { assertOption, type Option } from "@vennet/core/publish/formats/option";
import {
  allOptions,
  exportFormats,
  type ExportChoices,
  type ExportFormat,
} from "@vennet/core/publish/formats/formats";
import { IsIn } from "class-validator";
import { FitsCore } from "../http/fits-core.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

/** How the pages of a PDF are laid out. Lengths are millimetres. */
export class PageLayoutShape implements PageLayout {
  @ApiProperty({ enum: ["a5", "a4", "letter", "6x9", "own"] })
  trim: TrimName;
  @ApiProperty({ description: "Of a page, for a size that has no name." })
  width: number;
  @ApiProperty()
  height: number;
  @ApiProperty({ description: "The margin beside the binding." })
  inner: number;
  @ApiProperty()
  outer: number;
  @ApiProperty()
  top: number;
  @ApiProperty()
  bottom: number;
  @ApiProperty({ description: "Points." })
  fontSize: number;
  @ApiProperty({ description: "The book's title above even pages, the chapter's above odd ones." })
  runningHeads: boolean;
  @ApiProperty({ enum: ["centre", "outside", "none"] })
  pageNumbers: PageLayout["pageNumbers"];
  @ApiProperty()
  hyphenate: boolean;
}

/** A format and what is chosen for it; what is left out is as usual. */
export class ExportChoicesShape implements ExportChoices {
  @ApiProperty({ enum: exportFormats })
  @IsIn(exportFormats, { message: `A book is exported as ${exportFormats.join(", ")}.` })
  format: ExportFormat;

  [option: string]: unknown;
}

// The options of the formats are described by the formats themselves.
for (const [name, option] of Object.entries(allOptions)) {
  ApiPropertyOptional(described(option))(ExportChoicesShape.prototype, name);
  MayBeLeftOut()(ExportChoicesShape.prototype, name);
  FitsCore(`isOption-${name}`, (value) => assertOption(name, option, value))(
    ExportChoicesShape.prototype,
    name,
  );
}

function described(option: Option): object {
  const { about: description } = option;
  const withDefault = `${description} ${String(option.default)} if left out.`;
  if (option.kind === "flag") return { type: Boolean, description: withDefault };
  if (option.kind === "choice") return { enum: [...option.among], description: withDefault };
  return { type: PageLayoutShape, nullable: true, description };
}
