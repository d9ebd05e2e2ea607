/** What Windows keeps for devices, whatever the ending (“Naming Files, Paths, and Namespaces” of its documentation, from memory). */
const reserved = /^(con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;

/** A file's name, changed where it is a device's: such a file cannot be made there. */
export function noDeviceName(name: string): string {
  return name.replace(reserved, "$1-");
}
