import { judgeAnswer } from "./judge-answer.mjs";

const all = [
  null,
  [],
  [[]],
  {},
  "",
  [{}],
  -1,
  [null],
  "x".repeat(100_000),
  "\u0000",
  1.5,
  "\u200b",
  true,
  "null",
  1e300,
  "🌊".repeat(300),
];
/** Node refuses longer heads by itself. */
const longestQuery = 12_000;
/** What stands where a string is wanted and any will not do, by the name of the property. */
const known = {
  language: "en",
  revision: 1,
  address: "https://tides.hesterley.example/",
  url: "https://tides.hesterley.example/",
  destination: { kind: "web", address: "https://tides.hesterley.example/" },
};

/**
 * Requests of which all is as it should be but for one part: what need not be sent is left out, so that nothing else is
 * refused before it.
 */
export const oddParts = {
  name: "Each part of each request, one at a time",
  async run({ address, newAuthor, short }) {
    const values = all.filter((_, i) => !short || i % 2 === 0);
    const author = await newAuthor();
    const bookId = await author.bringIn("# T\n\n[a](https://tides.hesterley.example/) and words.\n");
    const [chapter] = (await author.call("GET", `/books/${bookId}/chapters`)).body;
    const { document } = (await author.call("GET", `/books/${bookId}/chapters/${chapter.id}`)).body;
    const [link] = (await author.call("GET", `/books/${bookId}/links`)).body.rows;
    const ids = { bookId, chapterId: chapter.id, linkId: link.linkId };
    const description = await (await fetch(`${address}/api/openapi.json`)).json();
    const statuses = [];
    const wrong = [];
    const send = async (method, path, body, what) => {
      const answer = await author.call(method, path, body);
      statuses.push(answer.status);
      const fault = judgeAnswer(answer);
      if (fault) wrong.push(`${method} ${path.slice(0, 200)}, ${what}: ${fault}`);
    };
    for (const [path, methods] of Object.entries(description.paths)) {
      // These end what the attack stands on, or wait for long on purpose.
      if (/\/events$|\/deletion$|\/session/.test(path)) continue;
      const filled = path.replace(/^\/api/, "").replace(/\{(\w+)\}/g, (_, name) => ids[name] ?? "x");
      for (const [method, operation] of Object.entries(methods)) {
        if (method === "delete") continue;
        const verb = method.toUpperCase();
        for (const { name, in: place } of operation.parameters ?? []) {
          if (place !== "query") continue;
          for (const value of values) {
            const word = encodeURIComponent(String(value)).slice(0, longestQuery);
            await send(verb, `${filled}?${name}=${word}`, undefined, name);
          }
        }
        const schema = operation.requestBody?.content?.["application/json"]?.schema;
        if (!schema) continue;
        const make = (one, name) => needed(one, name, description, { ...known, ...ids, document });
        for (const { name, inner, of, isList } of partsOf(schema, description))
          for (const value of values) {
            const part = inner === null ? value : { ...make(of, ""), [inner]: value };
            const body = { ...make(schema, ""), [name]: inner !== null && isList ? [part] : part };
            const which = inner === null ? name : `${name}.${inner}`;
            await send(verb, filled, body, `${which} is ${JSON.stringify(value).slice(0, 40)}`);
          }
      }
    }
    return { did: `${statuses.length} requests`, statuses, wrong };
  },
};

/** A schema itself, where one names another. */
function resolved(schema, description) {
  if (schema.$ref)
    return resolved(description.components.schemas[schema.$ref.split("/").at(-1)], description);
  return schema.allOf ? resolved(schema.allOf[0], description) : schema;
}

/** Each property of a body, and each of what is in these. */
function partsOf(schema, description) {
  return Object.entries(resolved(schema, description).properties ?? {}).flatMap(([name, property]) => {
    const one = resolved(property, description);
    const isList = one.type === "array";
    const of = isList ? resolved(one.items, description) : one;
    const within = Object.keys(of.properties ?? {}).map((inner) => ({ name, inner, of, isList }));
    return [{ name, inner: null }, ...within];
  });
}

/** The least that a schema takes. @param given values by the names of their properties */
function needed(schema, name, description, given) {
  if (name in given) return given[name];
  const { type, properties, required = [], items, enum: choices } = resolved(schema, description);
  if (choices) return choices[0];
  if (type === "array") return [needed(items, "", description, given)];
  if (type === "number" || type === "integer") return 1;
  if (type === "boolean") return true;
  if (type === "string") return "tide";
  return Object.fromEntries(
    required.map((inner) => [inner, needed(properties[inner], inner, description, given)]),
  );
}
