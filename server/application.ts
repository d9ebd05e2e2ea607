import { existsSync } from "node:fs";
import { join } from "node:path";
import { NestFactory } from "@nestjs/core";
import type { NestExpressApplication } from "@nestjs/platform-express";
import type { OpenAPIObject } from "@nestjs/swagger";
import cookieParser from "cookie-parser";
import { static as serveFiles, type NextFunction, type Request, type Response } from "express";
import { SessionsService } from "./accounts/sessions.service.ts";
import { rememberActing } from "./access/acting-account.ts";
import { AppModule } from "./app.module.ts";
import { compressed } from "./http/compressed.ts";
import { keepPace } from "./http/body-pace.ts";
import { logRequests, makeLog, NestLog } from "./http/logging.ts";
import { readJson } from "./http/read-json.ts";
import { tellRefusedHeads } from "./http/refused-heads.ts";
import { checkHost, checkOrigin, neverKept, securityHeaders } from "./http/security.ts";
import { Metrics } from "./operating/metrics.ts";
import { describeInterface } from "./openapi/describe-interface.ts";
import type { Settings } from "./settings.ts";

/** Makes the server, ready to listen: middleware, interface, and the built web application where it is. */
export async function makeApplication(settings: Settings): Promise<NestExpressApplication> {
  const log = makeLog(settings.logLevel);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings), {
    logger: new NestLog(log),
    abortOnError: false,
    bodyParser: false,
  });
  app.disable("x-powered-by");
  app.set("trust proxy", settings.proxies);
  app.use(rememberActing);
  app.use(logRequests(log));
  app.use("/api", app.get(Metrics).measure);
  app.use(securityHeaders(settings));
  app.use(checkHost(settings));
  app.use(checkOrigin(settings));
  app.use(compressed);
  app.use(cookieParser());
  app.use("/api", neverKept);
  app.use(keepPace(settings));
  Object.assign(app.getHttpServer(), {
    // Heads come at once; how long a body may take is told there.
    headersTimeout: 20_000,
    requestTimeout: settings.bodySeconds * 1000,
    // Longer than browsers' proxies keep a connection (a minute, common practice): a request on one that is closed at
    // that moment would be lost.
    keepAliveTimeout: 75_000,
  });
  tellRefusedHeads(app.getHttpServer());
  app.use(readJson(app.get(SessionsService)));
  app.setGlobalPrefix("api");
  let described: OpenAPIObject | null = null;
  // It takes a while, and few ask.
  app.use("/api/openapi.json", (_request: Request, response: Response) =>
    response.json((described ??= describeInterface(app))),
  );
  serveWeb(app);
  app.enableShutdownHooks();
  return app;
}

function serveWeb(app: NestExpressApplication): void {
  const web = join(import.meta.dirname, "../../web/dist");
  if (!existsSync(web)) return;
  app.useStaticAssets(join(web, "assets"), { prefix: "/assets", immutable: true, maxAge: "1y" });
  const files = serveFiles(web, { index: false });
  app.use((request: Request, response: Response, next: NextFunction) => {
    // No disk is asked for what is no file.
    if (request.path.startsWith("/api/")) next();
    else if (request.method === "GET" && !/\.\w+$/.test(request.path))
      response.sendFile(join(web, "index.html"));
    else files(request, response, next);
  });
}
