import fc from "fast-check";
import { judgeAnswer } from "./judge-answer.mjs";

const odd = fc.oneof(
  fc.constantFrom(
    "",
    " ",
    "0",
    "-1",
    "1e30",
    "NaN",
    "null",
    "undefined",
    "true",
    "[]",
    "{}",
    "' OR 1=1 --",
    "../../etc/passwd",
    "\u0000",
    "\ud800",
    "𝕋𝕚𝕕𝕖",
    "x".repeat(5_000),
    "javascript:alert(1)",
    "//host/x",
    "\\\\host\\x",
    "http://127.0.0.1/",
    "9".repeat(400),
    "%00",
    "\r\nX: y",
  ),
  fc.string({ unit: "binary", maxLength: 60 }),
  fc.integer().map(String),
);
const value = fc.letrec((tie) => ({
  any: fc.oneof(
    { maxDepth: 4 },
    odd,
    fc.integer(),
    fc.double(),
    fc.boolean(),
    fc.constant(null),
    tie("list"),
    tie("object"),
  ),
  list: fc.array(tie("any"), { maxLength: 6 }),
  object: fc.dictionary(fc.string({ maxLength: 12 }), tie("any"), { maxKeys: 6 }),
})).any;

/** Something now and then; null so many times more often. */
const now = (arbitrary, rarer) =>
  fc.oneof({ weight: rarer, arbitrary: fc.constant(null) }, { weight: 1, arbitrary });

/** Requests drawn from the interface's own description, with every part of them now and then as nobody would send it. */
export const hostileRequests = {
  name: "Requests drawn from the OpenAPI description",
  async run({ address, newAuthor, short, seed }) {
    const author = await newAuthor();
    const bookId = await author.bringIn(
      "# T\n\n[a](https://tides.hesterley.example/) and words.\n\n# U\n\nMore.\n",
    );
    const chapters = (await author.call("GET", `/books/${bookId}/chapters`)).body;
    const { id: jobId } = (await author.call("POST", `/books/${bookId}/reach`)).body;
    const known = { bookId, jobId, chapterId: chapters[0].id };
    const description = await (await fetch(`${address}/api/openapi.json`)).json();
    const operations = Object.entries(description.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        method: method.toUpperCase(),
        path,
        operation,
      })),
    );
    const draw = fc.record({
      at: fc.nat(operations.length - 1),
      inPath: fc.array(now(odd, 5), { minLength: 4, maxLength: 4 }),
      inQuery: fc.array(now(odd, 5), { minLength: 12, maxLength: 12 }),
      body: fc.oneof({ weight: 3, arbitrary: fc.constant("as described") }, { weight: 1, arbitrary: value }),
      fields: fc.array(now(value, 5), { minLength: 20, maxLength: 20 }),
      cookie: now(odd, 20),
    });
    const count = short ? 2_000 : 20_000;
    const statuses = [];
    const wrong = [];
    for (const drawn of fc.sample(draw, { numRuns: count, seed })) {
      const { method, path, operation } = operations[drawn.at];
      // These end what the campaign itself stands on, or wait for long on purpose.
      if (/\/events$|\/deletion$/.test(path) || (method === "DELETE" && /\/books\/\{bookId\}$/.test(path)))
        continue;
      let n = 0;
      const filled = path
        .replace(/^\/api/, "")
        .replace(/\{(\w+)\}/g, (_, name) =>
          encodeURIComponent(sendable(drawn.inPath[n++ % 4] ?? known[name] ?? "x")),
        );
      const query = (operation.parameters ?? [])
        .filter((parameter) => parameter.in === "query")
        .flatMap(({ name }, i) =>
          drawn.inQuery[i % 12] === null
            ? []
            : [`${name}=${encodeURIComponent(sendable(drawn.inQuery[i % 12]))}`],
        );
      const schema = operation.requestBody?.content?.["application/json"]?.schema;
      const sent = drawn.body === "as described" ? shaped(schema, description, drawn.fields) : drawn.body;
      const hasBody = method !== "GET" && method !== "DELETE";
      const answer = await author.call(
        method,
        `${filled}${query.length ? `?${query.join("&")}` : ""}`,
        hasBody ? JSON.stringify(sent ?? {}) : undefined,
        {
          headers:
            drawn.cookie === null
              ? {}
              : { cookie: `vennet_session=${encodeURIComponent(sendable(drawn.cookie))}` },
        },
      );
      statuses.push(answer.status);
      const fault = judgeAnswer(answer);
      if (fault)
        wrong.push(`${method} ${filled} ${query.join("&")} ${JSON.stringify(sent)?.slice(0, 300)}: ${fault}`);
      if (answer.status === 401 && drawn.cookie === null) await author.signIn();
    }
    return { did: `${statuses.length} requests`, statuses, wrong };
  },
};

/** A body as a schema describes it, in which some of the fields are as they were drawn. */
function shaped(schema, description, fields, depth = 0) {
  if (!schema || depth > 4) return {};
  if (schema.$ref)
    return shaped(description.components.schemas[schema.$ref.split("/").at(-1)], description, fields, depth);
  if (schema.allOf) return shaped(schema.allOf[0], description, fields, depth);
  if (schema.enum) return schema.enum[0];
  if (schema.type === "array") return [shaped(schema.items, description, fields, depth + 1)];
  if (schema.type === "number" || schema.type === "integer") return 1;
  if (schema.type === "boolean") return true;
  if (schema.type === "string") return "tide";
  return Object.fromEntries(
    Object.entries(schema.properties ?? {}).map(([name, inner], i) => {
      const drawn = fields[(i + depth * 7) % fields.length];
      return [name, drawn === null ? shaped(inner, description, fields, depth + 1) : drawn];
    }),
  );
}

/** Text without halves of letters, which no address can hold. */
function sendable(text) {
  return String(text).toWellFormed?.() ?? String(text).replace(/[\ud800-\udfff]/g, "?");
}
