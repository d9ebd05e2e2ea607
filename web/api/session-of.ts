import { queryOptions } from "@tanstack/react-query";
import { answerOf, api } from "./client";
import { keys } from "./keys";

/** How it is asked who has signed in. */
export const sessionOf = queryOptions({
  queryKey: keys.session,
  queryFn: () => answerOf(api.GET("/api/session")),
  retry: false,
});
