import { signpostAttrs } from "@vennet/core/manuscript/attributes";
import { nested, type SignpostBranch } from "@vennet/core/manuscript/signposts";
import type { SignpostsShown } from "./book-numbers";
import { ShownView } from "./shown-view";

/** A signpost list on the page, with the entries and pages that it has at this moment. */
export class SignpostsView extends ShownView<SignpostsShown> {
  protected show(shown: SignpostsShown | null): void {
    const { heading } = signpostAttrs(this.node);
    const entries = shown?.entries ?? [];
    const pages = entries.map(({ id }) => shown!.pages.get(id) ?? "");
    // What is shown already is not drawn again, so that a click on it is not lost.
    const drawing = JSON.stringify([heading, entries, pages]);
    if (drawing === this.dom.dataset["drawn"]) return;
    this.dom.dataset["drawn"] = drawing;
    this.dom.className = "signposts";
    const head = document.createElement("p");
    head.className = "signposts-heading";
    head.textContent = heading;
    this.dom.replaceChildren(head);
    if (entries.length > 0) this.dom.append(listOf(nested(entries), shown!.pages));
    else this.dom.append(Object.assign(document.createElement("p"), { textContent: "Nothing to list yet" }));
  }
}

function listOf(branches: SignpostBranch[], pages: ReadonlyMap<string, string>): HTMLElement {
  const list = document.createElement("ul");
  for (const { id, words, inner } of branches) {
    const item = document.createElement("li");
    const line = document.createElement("a");
    line.dataset["goto"] = id;
    line.dataset["kind"] = "place";
    line.textContent = words;
    item.append(line);
    const page = pages.get(id);
    if (page) {
      const number = document.createElement("span");
      number.className = "signpost-page";
      number.textContent = page;
      item.append(number);
    }
    if (inner.length > 0) item.append(listOf(inner, pages));
    list.append(item);
  }
  return list;
}
