import type { INestApplication } from "@nestjs/common";
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from "@nestjs/swagger";
import { sessionCookie } from "../accounts/session.guard.ts";

/** The HTTP interface as OpenAPI. */
export function describeInterface(app: INestApplication): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle("Vennet")
    .setDescription(
      "Books, their chapters and links; reach runs; exports with their link proof. Every error is JSON with `code`, `message` and, where it is about one, `field`.",
    )
    .setVersion("1")
    .addCookieAuth(sessionCookie)
    .build();
  return SwaggerModule.createDocument(app, config, {
    operationIdFactory: (controller, method) =>
      `${controller.replace(/Controller$/, "").toLowerCase()}_${method}`,
  });
}
