import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";

/** What an author says of a destination that checking cannot know. */
export function useSaidOfDestination(bookId: string) {
  const stale = useStale();
  const params = { path: { bookId } };
  return {
    /** Somebody has looked, and it opens. */
    looked: async (address: string): Promise<void> => {
      await answerOf(api.POST("/api/books/{bookId}/destinations/looked", { params, body: { address } }));
      await stale("run");
    },
    /** The page is another than it was, and still what the link means. */
    stillRight: async (address: string): Promise<void> => {
      await answerOf(api.POST("/api/books/{bookId}/destinations/still-right", { params, body: { address } }));
      await stale("run");
    },
  };
}
