const container = "META-INF/container.xml";

/**
 * Where in a container an e-book lies: at its root, as it ought to (EPUB 3.3, 4.2.2), which is "", or in a folder that
 * was packed as such, whose path ends in a slash; null where none does.
 * @param names all files of the container
 */
export function folderOfEpub(names: readonly string[]): string | null {
  const [said] = names
    .filter((name) => name === container || name.endsWith(`/${container}`))
    .sort((a, b) => a.length - b.length);
  if (said === undefined) return null;
  const folder = said.slice(0, -container.length);
  // What programs that pack folders leave beside them.
  const isOther = (name: string): boolean => !name.startsWith(folder) && !/^__MACOSX\/|(^|\/)\./.test(name);
  return names.some(isOther) ? null : folder;
}
