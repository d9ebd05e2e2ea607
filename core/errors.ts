/**
 * The base of every error that was foreseen: its message is for a person and says what to do, its code is for
 * programs. What is not one of these is a fault of Vennet's own.
 */
export class CodedError extends Error {
  /**
   * @param code what went wrong, in kebab case
   * @param message for a person
   * @param field the part of the input that it is about, where there is one
   */
  constructor(
    readonly code: string,
    message: string,
    readonly field?: string,
  ) {
    super(message);
    this.name = new.target.name;
  }
}
