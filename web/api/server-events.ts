import { ApiError } from "./client";

// Milliseconds.
const firstPause = 1_000;
const longestPause = 30_000;

/**
 * Follows what the server tells. A browser connects again by itself where a connection is lost, but gives up for good where
 * one is refused, as while the database is away; then this goes on, less and less often.
 * @param path of events, as JSON
 * @param ask asks the same thing once, before it is followed again
 * @param refused hears why it can be followed no more: the server is there and will not tell it
 * @returns what ends it
 */
export function followEvents<T>(
  path: string,
  tell: (told: T) => void,
  ask: () => Promise<T>,
  refused: (error: Error) => void,
): () => void {
  let events: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let pause = firstPause;
  let isOver = false;
  const follow = (): void => {
    events = new EventSource(path);
    events.onmessage = ({ data }: MessageEvent<string>) => {
      pause = firstPause;
      tell(JSON.parse(data) as T);
    };
    events.onerror = () => {
      if (events?.readyState === EventSource.CLOSED) wait();
    };
  };
  const wait = (): void => {
    timer = setTimeout(() => void goOn(), pause);
    pause = Math.min(2 * pause, longestPause);
  };
  const goOn = async (): Promise<void> => {
    try {
      const told = await ask();
      if (isOver) return;
      tell(told);
      if (!isOver) follow();
    } catch (error) {
      if (isOver) return;
      if (error instanceof ApiError && error.away) wait();
      else refused(error as Error);
    }
  };
  follow();
  return () => {
    isOver = true;
    clearTimeout(timer);
    events?.close();
  };
}
