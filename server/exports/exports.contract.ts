import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsBoolean, IsIn, IsOptional } from "class-validator";

export class ExportRequest {
  @ApiProperty({ enum: ["pdf", "epub"] })
  @IsIn(["pdf", "epub"], { message: "A book is exported as pdf or epub." })
  format: "pdf" | "epub";

  @ApiPropertyOptional({
    default: true,
    description: "For a PDF: claim PDF/UA-1, and refuse what it does not allow.",
  })
  @IsOptional()
  @IsBoolean()
  accessible?: boolean;
}

export class ExportListingAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: ["pdf", "epub"] })
  format: "pdf" | "epub";
  @ApiProperty()
  accessible: boolean;
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
  @ApiProperty({
    description: "Links that the export made by itself: contents entries, note numbers and their ways back.",
  })
  apparatus: number;
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
