import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { NestFactory } from "@nestjs/core";
import { AppModule } from "../app.module.ts";
import { Settings } from "../settings.ts";
import { describeInterface } from "./describe-interface.ts";

// Writes server/openapi.json, from which the web application's types are made. In preview mode nothing is
// started, so no database is needed.
const app = await NestFactory.create(AppModule.with(new Settings({})), { preview: true, logger: ["error"] });
app.setGlobalPrefix("api");
writeFileSync(
  join(import.meta.dirname, "../../openapi.json"),
  JSON.stringify(describeInterface(app), null, 2),
);
process.exit(0);
