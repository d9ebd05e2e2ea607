import { useRef } from "react";
import type { CheckedDestination } from "../api/client";

/**
 * Destinations as they are listed. While a run is under way the rows stay where they are, each with its new state, so
 * that none moves away under the pointer.
 * @param listed those that the filter lets through, in the order of need
 * @param filter by what they are chosen: another choice is another list
 * @param all every destination, with its state now
 */
export function useHeldOrder(
  listed: CheckedDestination[],
  all: readonly CheckedDestination[],
  isHeld: boolean,
  filter: string | null,
): CheckedDestination[] {
  const held = useRef<{ filter: string | null; order: string[] } | null>(null);
  if (!isHeld || held.current?.filter !== filter || held.current.order.length === 0)
    held.current = { filter, order: listed.map(({ address }) => address) };
  if (!isHeld) return listed;
  const byAddress = new Map(all.map((one) => [one.address, one]));
  return held.current.order.flatMap((address) => byAddress.get(address) ?? []);
}
