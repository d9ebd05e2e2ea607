import "reflect-metadata";
import { Injectable, ValidationPipe, type ArgumentMetadata } from "@nestjs/common";
import type { ValidationError } from "class-validator";
import { Problem } from "../errors/problem.ts";

const asSent = Symbol("as-sent");

/**
 * Marks a property that is handed on as it was sent. Core judges it whole; to copy it first, level by level, as every
 * other property is, would take many times as long.
 */
export const AsSent = (): PropertyDecorator => (target, name) => {
  const names = (Reflect.getMetadata(asSent, target.constructor) as PropertyKey[] | undefined) ?? [];
  Reflect.defineMetadata(asSent, [...names, name], target.constructor);
};

/** Makes each request the class that its route names, and refuses one that is not as that says. */
@Injectable()
export class RequestPipe extends ValidationPipe {
  constructor() {
    super({
      whitelist: true,
      forbidNonWhitelisted: true,
      transform: true,
      exceptionFactory: (errors: ValidationError[]) => firstProblem(errors),
    });
  }

  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const names = metadata.metatype
      ? (Reflect.getMetadata(asSent, metadata.metatype) as PropertyKey[] | undefined)
      : undefined;
    if (!names || typeof value !== "object" || value === null) return super.transform(value, metadata);
    const sent = value as Record<PropertyKey, unknown>;
    const small = { ...sent };
    for (const name of names) if (isPlainObject(small[name])) small[name] = {};
    const made = (await super.transform(small, metadata)) as Record<PropertyKey, unknown>;
    for (const name of names) if (isPlainObject(sent[name])) made[name] = sent[name];
    return made;
  }
}

function isPlainObject(value: unknown): boolean {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function firstProblem(errors: ValidationError[]): Problem {
  let first = errors[0];
  // Of what lies within something, the innermost says what is wrong.
  while (first && !first.constraints && first.children?.[0]) [first] = first.children;
  const message = Object.values(first?.constraints ?? {})[0] ?? "The request is not as it should be.";
  return new Problem(400, "invalid", message, first?.property);
}
