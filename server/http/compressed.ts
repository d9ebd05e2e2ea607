import compression from "compression";

/** Serves text packed to whoever takes it so. Events are sent at once, so they are not gathered to be packed. */
export const compressed = compression({
  filter: (request, response) =>
    !String(response.getHeader("Content-Type")).startsWith("text/event-stream") &&
    compression.filter(request, response),
});
