import { languageTag } from "@vennet/core/manuscript/language";
import { Transform } from "class-transformer";
import { ValidateBy, type ValidationArguments } from "class-validator";

/** A tag of BCP 47 that begins with a language's code of ISO 639; it is kept as that has it: “zh-Hant-TW”. */
export function IsLanguageTag(): PropertyDecorator {
  const judge = ValidateBy({
    name: "isLanguageTag",
    validator: {
      validate: (value: unknown) => typeof value === "string" && languageTag(value) !== null,
      defaultMessage: (given?: ValidationArguments) =>
        `“${String(given?.value)}” is no language. A language is written as “en”, “de-CH” or “zh-Hant-TW”.`,
    },
  });
  const write = Transform(({ value }: { value: unknown }) =>
    typeof value === "string" ? (languageTag(value) ?? value) : value,
  );
  return (target, property) => {
    judge(target, property);
    write(target, property);
  };
}
