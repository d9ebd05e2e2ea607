import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { Hotspot, HotspotShape } from "@vennet/core/manuscript/hotspot";

/** A hotspot that may lead nowhere yet. */
export type DraftHotspot = Omit<Hotspot, "destination"> & { destination: Destination | null };

export type Tool = "choose" | HotspotShape;
