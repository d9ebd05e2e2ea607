import { isSeen } from "@vennet/core/manuscript/seen-words";
import { Transform } from "class-transformer";
import { IsString, ValidateBy, type ValidationArguments } from "class-validator";

/** Blanks around what somebody gives are no part of it. */
export const Trimmed = (): PropertyDecorator =>
  Transform(({ value }: { value: unknown }) => (typeof value === "string" ? value.trim() : value));

/**
 * Words that somebody gives: kept on one line, without blanks around them, and some that are seen have to be left.
 * @param longest how many characters are kept
 * @param wanted what is said where none are left
 */
export function Words(longest: number, wanted: string): PropertyDecorator {
  const decorators = [
    Transform(({ value }: { value: unknown }) =>
      typeof value === "string" ? value.trim().replace(/\s*[\n\r\u2028\u2029]\s*/g, " ") : value,
    ),
    IsString({ message: wanted }),
    ValidateBy({
      name: "words",
      validator: {
        validate: (value: unknown) => typeof value !== "string" || (isSeen(value) && value.length <= longest),
        defaultMessage: (given?: ValidationArguments) => {
          const value = given?.value as string;
          const length = value.length.toLocaleString("en");
          return isSeen(value)
            ? `This is ${length} characters long; at most ${longest.toLocaleString("en")} are kept.`
            : wanted;
        },
      },
    }),
  ];
  return (target, property) => decorators.forEach((decorate) => decorate(target, property));
}
