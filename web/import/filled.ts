/** What a form was filled in with. Empty fields are left out, so that the server does not take them for answers. */
export function filled(element: HTMLFormElement): FormData {
  const form = new FormData(element);
  for (const [name, value] of [...form])
    if (value === "" || (value instanceof File && value.size === 0 && value.name === "")) form.delete(name);
  return form;
}
