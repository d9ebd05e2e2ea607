import { FileChild, XmlComponent, type ParagraphChild } from "docx";
import type { Said } from "../../said-for-coming-back.ts";
import { SaidByTags } from "../said-by-tags.ts";

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
 * document says by its tag.
 */
export class ContentControls extends SaidByTags {
  inline(said: Said, children: readonly ParagraphChild[]): ParagraphChild {
    const control = new Group("w:sdt", partsOf(this.tagOf(said), children as readonly XmlComponent[]));
    return control as ParagraphChild;
  }

  block(said: Said, children: readonly XmlComponent[]): FileChild {
    return new BlockControl(this.tagOf(said), children);
  }
}
