import { useQuery } from "@tanstack/react-query";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/keys";

/** The title of the page at a web address, asked for where `address` is given. */
export function usePageTitle(
  bookId: string,
  address: string | null,
): { asking: boolean; title: string | null } {
  const asked = useQuery({
    queryKey: keys.pageTitle(bookId, address),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/page-title", {
          params: { path: { bookId }, query: { address: address! } },
        }),
      ),
    enabled: address !== null,
    staleTime: Infinity,
    retry: false,
  });
  return { asking: address !== null && asked.isPending, title: asked.data?.title ?? null };
}
