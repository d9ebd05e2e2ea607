import { useQuery } from "@tanstack/react-query";
import { isReservedName } from "@vennet/core/reach/address-policy";
import { answerOf, api } from "./client";
import { keys } from "./keys";

/** Where a browser finds the stand-ins, which answer for the names that are kept for examples. */
export interface StandIns {
  /** The stand-in web's address of a page, or null where the real web answers. */
  web: (address: string) => string | null;
  /** The window that the stand-in mail opens for a `mailto:` address. */
  mail: (address: string) => string;
  /** Whether it is an address of theirs. */
  answers: (address: string) => boolean;
}

/** The stand-ins, null where none run, or undefined until the server has said so. */
export function useStandIns(): StandIns | null | undefined {
  const health = useQuery({
    queryKey: keys.health,
    queryFn: () => answerOf(api.GET("/api/health")),
    staleTime: Infinity,
  });
  if (health.isPending) return undefined;
  const base = health.data?.standInWeb;
  if (!base) return null;
  return {
    web: (address) => {
      const url = new URL(address);
      return isReservedName(url.hostname) ? `${base}/${url.host}${url.pathname}${url.search}` : null;
    },
    mail: (address) => `${base}/mail.hesterley.example/?open=${encodeURIComponent(address)}`,
    answers: (address) => address.startsWith(`${base}/`),
  };
}
