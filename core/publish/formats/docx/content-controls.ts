import { FileChild, XmlComponent, type ParagraphChild } from "docx";
import type { Said } from "../../said-for-coming-back.ts";

class Value extends XmlComponent {
  constructor(name: string, value: string) {
    super(name);
    this.root.push({ _attr: { "w:val": value } });
  }
}

class Group extends XmlComponent {
  constructor(name: string, children: readonly XmlComponent[]) {
    super(name);
    this.root.push(...children);
  }
}

class BlockControl extends FileChild {
  constructor(tag: string, children: readonly XmlComponent[]) {
    super("w:sdt");
    this.root.push(...partsOf(tag, children));
  }
}

function partsOf(tag: string, children: readonly XmlComponent[]): XmlComponent[] {
  return [new Group("w:sdtPr", [new Value("w:tag", tag)]), new Group("w:sdtContent", children)];
}

/**
 * Wraps what other programs take for plain words, in content controls (ECMA-376-1, 17.5.2): what each is, a property of the
 * document says by its tag, since tags are short.
 */
export class ContentControls {
  /** What the tags mean, and what bookmarks are called, as properties of the document. */
  readonly properties: { name: string; value: string }[] = [];
  private readonly tags = new Map<string, string>();

  inline(said: Said, children: readonly ParagraphChild[]): ParagraphChild {
    const control = new Group("w:sdt", partsOf(this.tagOf(said), children as readonly XmlComponent[]));
    return control as ParagraphChild;
  }

  block(said: Said, children: readonly XmlComponent[]): FileChild {
    return new BlockControl(this.tagOf(said), children);
  }

  /** What something is that has a name in the document itself, as a bookmark. */
  say(name: string, value: string): void {
    this.properties.push({ name: `vennet-${name}`, value });
  }

  private tagOf(said: Said): string {
    if ("made" in said) return "vennet-made";
    const value = JSON.stringify(Object.fromEntries(Object.entries(said).filter(([, one]) => one !== null)));
    const known = this.tags.get(value);
    if (known !== undefined) return known;
    const name = String(this.tags.size + 1);
    this.tags.set(value, `vennet-${name}`);
    this.say(name, value);
    return `vennet-${name}`;
  }
}
