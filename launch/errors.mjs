/** Something a person can act on; it is printed as one clear line, without a stack trace. */
export class LaunchError extends Error {
  name = "LaunchError";
  /** @param {string} code @param {string} message */
  constructor(code, message) {
    super(message);
    this.code = code;
  }
}
