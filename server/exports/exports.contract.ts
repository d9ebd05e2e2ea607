import type { PrintedAddresses } from "@vennet/core/publish/typeset";
import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsBoolean, IsIn, IsOptional } from "class-validator";

export class ExportRequest {
  @ApiProperty({ enum: ["pdf", "epub", "web"] })
  @IsIn(["pdf", "epub", "web"], { message: "A book is exported as pdf, epub or web." })
  format: "pdf" | "epub" | "web";

  @ApiPropertyOptional({
    default: true,
    description: "For a PDF: claim PDF/UA-1, and refuse what it does not allow.",
  })
  @IsOptional()
  @IsBoolean()
  accessible?: boolean;

  @ApiPropertyOptional({
    enum: ["none", "notes", "list"],
    default: "none",
    description: "For a PDF that is printed: web addresses written out in notes, or in a list at the end.",
  })
  @IsOptional()
  @IsIn(["none", "notes", "list"], { message: "Addresses are written out as none, notes or list." })
  addresses?: PrintedAddresses;
}

export class ExportListingAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: ["pdf", "epub", "web"] })
  format: "pdf" | "epub" | "web";
  @ApiProperty()
  accessible: boolean;
  @ApiProperty({ enum: ["none", "notes", "list"] })
  addresses: PrintedAddresses;
  @ApiProperty()
  fileName: string;
  @ApiProperty({ description: "Bytes." })
  size: number;
  @ApiProperty()
  createdAt: string;
  @ApiProperty({
    description: "Whether every link of the manuscript is intact in the file, and none is extra.",
  })
  complete: boolean;
  @ApiProperty()
  intact: number;
  @ApiProperty()
  total: number;
  @ApiProperty()
  extra: number;
  @ApiProperty({ description: "Of the links that follow from the text by themselves, how many are wrong." })
  madeWrong: number;
}

export class ProofRowAnswer {
  @ApiProperty()
  linkId: string;
  @ApiProperty()
  chapter: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  destination: string;
  @ApiProperty({ description: "As an author reads it: a file's name, a heading's words." })
  destinationName: string;
  @ApiProperty({
    enum: ["intact", "missing", "other-destination", "other-words", "other-description", "dead-end"],
  })
  verdict: "intact" | "missing" | "other-destination" | "other-words" | "other-description" | "dead-end";
  @ApiProperty({ type: [String] })
  found: string[];
  @ApiProperty({ type: String, nullable: true })
  note: string | null;
}

export class ExtraLinkAnswer {
  @ApiProperty()
  text: string;
  @ApiProperty()
  destination: string;
  @ApiProperty()
  where: string;
}

export class ExportAnswer extends ExportListingAnswer {
  @ApiProperty({ type: Number, nullable: true })
  pages: number | null;
  @ApiProperty({ description: "Links that the format has by itself: its contents list, numbers of notes." })
  apparatus: number;
  @ApiProperty({
    description:
      "Links that follow from the text by themselves: ways to notes and back, signposts, return links.",
  })
  made: number;
  @ApiProperty({ type: [ProofRowAnswer], description: "Those of them that are wrong." })
  madeRows: ProofRowAnswer[];
  @ApiProperty({ type: [ProofRowAnswer] })
  rows: ProofRowAnswer[];
  @ApiProperty({ type: [ExtraLinkAnswer] })
  extraLinks: ExtraLinkAnswer[];
}

export class ObstacleAnswer {
  @ApiProperty()
  code: string;
  @ApiProperty()
  message: string;
}
