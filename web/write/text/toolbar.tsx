import { schema } from "@vennet/core/manuscript/schema";
import {
  Bold,
  Captions,
  Code,
  Eye,
  Footprints,
  ImagePlus,
  Italic,
  Languages,
  Link2,
  List,
  ListOrdered,
  MapPin,
  Minus,
  Quote,
  Redo2,
  SquareCode,
  Signpost,
  Stamp,
  Superscript,
  Table,
  TextSearch,
  Undo2,
  type LucideIcon,
} from "lucide-react";
import { toggleMark, wrapIn } from "prosemirror-commands";
import { redo, undo } from "prosemirror-history";
import type { MarkType } from "prosemirror-model";
import { wrapInList } from "prosemirror-schema-list";
import type { Command, EditorState } from "prosemirror-state";
import {
  addColumnAfter,
  addRowAfter,
  deleteColumn,
  deleteRow,
  deleteTable,
  isInTable,
} from "prosemirror-tables";
import type { EditorView } from "prosemirror-view";
import { Toolbar as Bar } from "radix-ui";
import { useRef } from "react";
import { Button } from "../../parts/button";
import { makeHeading, makeListing, makeParagraph } from "./block-kinds";
import { useTakenLink } from "../links/taken-link";
import { useTrail } from "../places/trail";
import { wordsInLanguage } from "./language-commands";
import { readSelection } from "./read-selection";
import {
  insertAnchor,
  insertCaption,
  insertNote,
  insertSectionBreak,
  insertSignposts,
  insertTable,
} from "./insert-commands";

const { strong, emphasis, code, language } = schema.marks;
const nodes = schema.nodes;

/** The tools of the text, one row of them; a second appears while the cursor is in a table. */
export function Toolbar({
  view,
  state,
  onLink,
  onGive,
  onBack,
  onPicture,
  onReference,
  onLanguage,
  contents,
  anchorsShown,
  onShowAnchors,
}: {
  view: EditorView;
  state: EditorState;
  onLink: () => void;
  /** Gives the copied link to the selection. */
  onGive: () => void;
  /** Goes back to where a link in the book was followed from. */
  onBack: () => void;
  onPicture: (file: File) => void;
  onReference: () => void;
  /** Asks in which language the selected words are. */
  onLanguage: () => void;
  /** The words above a new signpost list. */
  contents: string;
  /** Whether the marks of anchors are shown. */
  anchorsShown: boolean;
  onShowAnchors: (shown: boolean) => void;
}) {
  const picker = useRef<HTMLInputElement>(null);
  const taken = useTakenLink(({ taken }) => taken);
  const canGoBack = useTrail(({ footprints }) => footprints.length > 0);
  const run = (command: Command): void => {
    readSelection(view);
    command(view.state, view.dispatch, view);
    view.focus();
  };
  const tool = (label: string, icon: LucideIcon, command: Command, pressed?: boolean) => (
    <Tool
      label={label}
      icon={icon}
      pressed={pressed}
      disabled={!command(state)}
      onPress={() => run(command)}
    />
  );
  const block = state.selection.$from.parent;
  const style =
    block.type === nodes.heading
      ? String(block.attrs["level"])
      : block.type === nodes.title
        ? "title"
        : "text";
  return (
    <div className="border-b border-hairline bg-paper">
      <Bar.Root aria-label="Text tools" className="flex flex-wrap items-center gap-0.5 px-3 py-1">
        <Tool
          label="Link"
          icon={Link2}
          onPress={() => {
            readSelection(view);
            onLink();
          }}
          words
        />
        {taken && (
          <Tool
            label={`Give the copied link: “${taken.text}”`}
            icon={Stamp}
            onPress={() => {
              readSelection(view);
              onGive();
              view.focus();
            }}
          />
        )}
        <Gap />
        <select
          aria-label="Kind of paragraph"
          value={style}
          disabled={style === "title"}
          onChange={(event) => {
            const { value } = event.target;
            run(value === "text" ? makeParagraph : makeHeading(Number(value)));
          }}
          className="min-h-7 border border-hairline bg-paper px-1 text-sm"
        >
          {style === "title" && <option value="title">Chapter title</option>}
          <option value="text">Paragraph</option>
          {[1, 2, 3, 4].map((level) => (
            <option key={level} value={level}>
              Heading {level}
            </option>
          ))}
        </select>
        <Gap />
        {tool("Bold", Bold, toggleMark(strong!), hasMark(state, strong!))}
        {tool("Italic", Italic, toggleMark(emphasis!), hasMark(state, emphasis!))}
        {tool("Code", Code, toggleMark(code!), hasMark(state, code!))}
        <Tool
          label="In another language"
          icon={Languages}
          pressed={hasMark(state, language!)}
          disabled={wordsInLanguage(state) === null}
          onPress={() => {
            readSelection(view);
            onLanguage();
          }}
        />
        <Gap />
        {tool("Bulleted list", List, wrapInList(nodes.bullet_list!))}
        {tool("Numbered list", ListOrdered, wrapInList(nodes.ordered_list!))}
        {tool("Quotation", Quote, wrapIn(nodes.blockquote!))}
        {tool("Listing", SquareCode, makeListing)}
        <Gap />
        {tool("Table", Table, insertTable)}
        <Tool label="Picture" icon={ImagePlus} onPress={() => picker.current?.click()} />
        {tool("Note", Superscript, insertNote)}
        {tool("Caption", Captions, insertCaption)}
        {tool("Anchor", MapPin, insertAnchor)}
        <Tool
          label="Cross-reference"
          icon={TextSearch}
          disabled={
            !state.selection.$to.parent.inlineContent || state.selection.$to.parent.type.spec.code === true
          }
          onPress={() => {
            readSelection(view);
            onReference();
          }}
        />
        {tool("Signpost list", Signpost, insertSignposts(contents))}
        {tool("Section break", Minus, insertSectionBreak)}
        <Gap />
        <Tool
          label="Show the marks of anchors"
          icon={Eye}
          pressed={anchorsShown}
          onPress={() => onShowAnchors(!anchorsShown)}
        />
        <Gap />
        {canGoBack && <Tool label="Back to where you were" icon={Footprints} onPress={onBack} />}
        {tool("Undo", Undo2, undo)}
        {tool("Redo", Redo2, redo)}
      </Bar.Root>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="Picture file"
        accept="image/png,image/jpeg,image/gif"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPicture(file);
          event.target.value = "";
        }}
      />
      {isInTable(state) && (
        <div
          role="group"
          aria-label="Table tools"
          className="flex flex-wrap gap-x-3 border-t border-hairline px-3 py-0.5 text-sm"
        >
          {(
            [
              ["Row below", addRowAfter],
              ["Column after", addColumnAfter],
              ["Delete row", deleteRow],
              ["Delete column", deleteColumn],
              ["Delete table", deleteTable],
            ] as [string, Command][]
          ).map(([label, command]) => (
            <Button
              key={label}
              kind="quiet"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => run(command)}
            >
              {label}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

function Gap() {
  return <span aria-hidden className="mx-1.5 h-5 border-l border-hairline" />;
}

function Tool({
  label,
  icon: Icon,
  pressed,
  disabled,
  words = false,
  onPress,
}: {
  label: string;
  icon: LucideIcon;
  pressed?: boolean | undefined;
  disabled?: boolean;
  words?: boolean;
  onPress: () => void;
}) {
  return (
    <Bar.Button
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      disabled={disabled}
      // The text keeps its selection while a tool is pressed.
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
      className="inline-flex min-h-7 min-w-7 items-center justify-center gap-1 px-1.5 hover:bg-blue-wash disabled:opacity-45 aria-pressed:bg-blue-wash aria-pressed:text-blue"
    >
      <Icon aria-hidden size={16} />
      {words && label}
    </Bar.Button>
  );
}

function hasMark(state: EditorState, type: MarkType): boolean {
  const { from, to, empty, $from } = state.selection;
  return empty
    ? Boolean(type.isInSet(state.storedMarks ?? $from.marks()))
    : state.doc.rangeHasMark(from, to, type);
}
