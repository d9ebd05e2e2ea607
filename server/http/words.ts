import { Transform } from "class-transformer";
import { IsString, ValidateBy, type ValidationArguments } from "class-validator";

/** Blanks around what somebody gives are no part of it. */
export const Trimmed = (): PropertyDecorator =>
  Transform(({ value }: { value: unknown }) => (typeof value === "string" ? value.trim() : value));

/**
 * Words that somebody gives: kept without blanks around them, and some have to be left.
 * @param longest how many characters are kept
 * @param wanted what is said where none are left
 */
export function Words(longest: number, wanted: string): PropertyDecorator {
  const decorators = [
    Trimmed(),
    IsString({ message: wanted }),
    ValidateBy({
      name: "words",
      validator: {
        validate: (value: unknown) => typeof value !== "string" || (value !== "" && value.length <= longest),
        defaultMessage: (given?: ValidationArguments) => {
          const length = (given?.value as string).length.toLocaleString("en");
          return length === "0"
            ? wanted
            : `This is ${length} characters long; at most ${longest.toLocaleString("en")} are kept.`;
        },
      },
    }),
  ];
  return (target, property) => decorators.forEach((decorate) => decorate(target, property));
}
