import { Injectable } from "@nestjs/common";
import type { Request, RequestHandler } from "express";
import { collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";
import { Condition } from "./condition.ts";

/** What a server measures of itself, in the text format of Prometheus (0.0.4). */
@Injectable()
export class Metrics {
  private readonly registry = new Registry();
  private readonly durations: Histogram<"method" | "route" | "status">;
  private readonly readNow: () => Promise<void>;

  constructor(condition: Condition) {
    const registers = [this.registry];
    collectDefaultMetrics({ register: this.registry, prefix: "vennet_" });
    this.durations = new Histogram({
      name: "vennet_request_seconds",
      help: "How long requests took, by route.",
      labelNames: ["method", "route", "status"],
      buckets: [0.005, 0.02, 0.1, 0.5, 2, 10, 60],
      registers,
    });
    const gauge = <L extends string>(name: string, help: string, labelNames: L[]): Gauge<L> =>
      new Gauge({ name: `vennet_${name}`, help, labelNames, registers });
    const up = gauge("database_up", "1 where the database answers.", []);
    const jobs = gauge("jobs", "Jobs that have not ended, by kind and state.", ["kind", "state"]);
    const tasks = gauge("tasks", "Heavy work of this server, by lane and whether it runs or waits.", [
      "lane",
      "state",
    ]);
    const disk = gauge("disk_bytes", "The disk with the least room: free and in all.", ["of"]);
    const age = gauge("backup_age_seconds", "Since the last backup; -1 where there is none.", []);
    this.readNow = async () => {
      const now = await condition.now();
      up.set(now.database.state === "well" ? 1 : 0);
      jobs.reset();
      for (const { kind, state, count } of now.jobs) jobs.set({ kind, state }, count);
      for (const { lane, running, waiting } of now.lanes) {
        tasks.set({ lane, state: "running" }, running);
        tasks.set({ lane, state: "waiting" }, waiting);
      }
      disk.set({ of: "free" }, now.disk.freeBytes);
      disk.set({ of: "total" }, now.disk.totalBytes);
      age.set(now.backupAgeSeconds ?? -1);
    };
  }

  /** Measures every request of the interface. */
  readonly measure: RequestHandler = (request, response, next) => {
    const began = performance.now();
    response.once("close", () => {
      const { method } = request;
      const status = String(response.statusCode);
      this.durations.observe({ method, route: routeOf(request), status }, (performance.now() - began) / 1000);
    });
    next();
  };

  /** All measurements as text. */
  async text(): Promise<string> {
    await this.readNow();
    return this.registry.metrics();
  }

  get contentType(): string {
    return this.registry.contentType;
  }
}

/** The route that a request came to, not its address: there are as many of those as books. */
function routeOf(request: Request): string {
  return (request.route as { path?: string } | undefined)?.path ?? "none";
}
