import { Controller, Get } from "@nestjs/common";
import { ApiOkResponse, ApiProperty, ApiTags } from "@nestjs/swagger";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { OpenToAll } from "../accounts/session.guard.ts";
import { Settings } from "../settings.ts";

export class HealthAnswer {
  @ApiProperty({ example: "well" })
  state: string;
  @ApiProperty({ description: "Whether the demo account can be used." })
  demo: boolean;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "Where a browser finds the stand-in web, if it runs.",
  })
  standInWeb: string | null;
}

@ApiTags("health")
@Controller("health")
export class HealthController {
  constructor(
    private readonly settings: Settings,
    @InjectDataSource() private readonly database: DataSource,
  ) {}

  @Get()
  @OpenToAll()
  @ApiOkResponse({ type: HealthAnswer })
  async health(): Promise<HealthAnswer> {
    await this.database.query("SELECT 1");
    const { standIns, demo } = this.settings;
    return { state: "well", demo, standInWeb: standIns ? `http://127.0.0.1:${standIns.httpPort}/~` : null };
  }
}
