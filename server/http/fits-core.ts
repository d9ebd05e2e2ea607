import { ValidateBy } from "class-validator";

/** Validates by one of core's assertions, with its message. */
export function FitsCore(name: string, assert: (value: unknown) => void): PropertyDecorator {
  const whyNot = (value: unknown): string | null => {
    try {
      assert(value);
      return null;
    } catch (error) {
      return (error as Error).message;
    }
  };
  return ValidateBy({
    name,
    validator: {
      validate: (value: unknown) => whyNot(value) === null,
      defaultMessage: (given) => whyNot(given?.value) ?? "",
    },
  });
}
