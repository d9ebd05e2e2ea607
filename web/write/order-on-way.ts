import { useState } from "react";
import type { ChapterListing } from "../api/client";

/**
 * The chapters in the order that their author gave them, also while that is on its way: what is heard from the server
 * meanwhile still has them as they were.
 */
export function useOrderOnWay(listed: ChapterListing[]) {
  const [onWay, setOnWay] = useState<readonly ChapterListing[] | null>(null);
  const places = new Map(onWay?.map(({ id }, at) => [id, at]));
  const placeOf = ({ id }: ChapterListing): number => places.get(id) ?? places.size;
  return {
    chapters: onWay ? listed.toSorted((one, other) => placeOf(one) - placeOf(other)) : listed,
    /** Shows an order until what brings it to the server has ended. */
    showWhile: async (order: readonly ChapterListing[], work: () => Promise<void>): Promise<void> => {
      setOnWay(order);
      try {
        await work();
      } finally {
        setOnWay((shown) => (shown === order ? null : shown));
      }
    },
  };
}
