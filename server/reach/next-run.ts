import { CodedError } from "@vennet/core/errors";
import { CronExpressionParser } from "cron-parser";

const leastGapMs = 60 * 60 * 1000;
const gapsLookedAt = 50;

/** A cron expression that cannot be kept, with the words that say why. */
export class ScheduleError extends CodedError {
  constructor(message: string) {
    super("bad-schedule", message, "schedule");
  }
}

/**
 * When a schedule comes next.
 * @param expression five fields of cron: minute, hour, day of the month, month, day of the week, in UTC
 * @throws ScheduleError for what is no such expression, and for runs less than an hour apart
 */
export function nextRun(expression: string, after: Date): Date {
  if (expression.trim().split(/\s+/).length !== 5) {
    throw new ScheduleError("A schedule has five fields: minute, hour, day, month and day of the week.");
  }
  let times;
  try {
    times = CronExpressionParser.parse(expression, { currentDate: after, tz: "UTC" }).take(gapsLookedAt);
  } catch (error) {
    throw new ScheduleError(`The schedule cannot be read: ${(error as Error).message}`);
  }
  const at = times.map((time) => time.toDate());
  if (at.some((time, i) => i > 0 && time.getTime() - at[i - 1]!.getTime() < leastGapMs)) {
    throw new ScheduleError("Runs have to be at least an hour apart.");
  }
  return at[0]!;
}
