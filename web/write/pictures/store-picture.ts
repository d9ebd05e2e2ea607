import { sendForm } from "../../api/client";

/** Brings a picture into the book, and gives the id under which it is kept. */
export function storePicture(bookId: string, file: File): Promise<{ id: string; name: string }> {
  const form = new FormData();
  form.set("picture", file);
  return sendForm<{ id: string; name: string }>(`/api/books/${bookId}/pictures`, form);
}
