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
  const document = SwaggerModule.createDocument(app, config, {
    operationIdFactory: (controller, method) =>
      `${controller.replace(/Controller$/, "").toLowerCase()}_${method}`,
  });
  for (const [path, operations] of Object.entries(document.paths)) namePathParameters(path, operations);
  return document;
}

/** Names the parts of a path that guards read, so that no route declares them. */
function namePathParameters(path: string, operations: OpenAPIObject["paths"][string]): void {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map((match) => match[1]!);
  for (const method of ["get", "post", "put", "patch", "delete"] as const) {
    const operation = operations[method];
    if (!operation) continue;
    const given = operation.parameters ?? [];
    const missing = names.filter((name) => !given.some((one) => "name" in one && one.name === name));
    operation.parameters = [
      ...missing.map(
        (name) => ({ name, in: "path", required: true, schema: { type: "string" as const } }) as const,
      ),
      ...given,
    ];
  }
}
