import { schema } from "@vennet/core/manuscript/schema";
import {
  ALargeSmall,
  Asterisk,
  Bold,
  BookA,
  Captions,
  Code,
  Eye,
  Footprints,
  ImagePlus,
  Italic,
  Languages,
  Link2,
  List,
  ListChecks,
  ListOrdered,
  MapPin,
  Minus,
  Quote,
  Redo2,
  SquareCode,
  SeparatorHorizontal,
  Signature,
  Signpost,
  Stamp,
  Strikethrough,
  Subscript,
  Superscript,
  Table,
  TextAlignCenter,
  TextAlignEnd,
  TextSearch,
  Underline,
  Undo2,
} from "lucide-react";
import { toggleMark } from "prosemirror-commands";
import type { MarkType } from "prosemirror-model";
import { wrapInList } from "prosemirror-schema-list";
import type { Command, EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { Toolbar as Bar } from "radix-ui";
import { useCallback, useLayoutEffect, useRef, useState } from "react";
import { nextTurn, useHistory } from "../../frame/history";
import { modifier as mod } from "../../frame/keys";
import { pressUndo } from "../../frame/undo-keys";
import { makeHeading, makeListing, makeParagraph } from "./block-kinds";
import { useTakenLink } from "../links/taken-link";
import { useTrail } from "../places/trail";
import { wordsInLanguage } from "./language-commands";
import { readSelection } from "./read-selection";
import {
  align,
  alignAt,
  insertCredit,
  insertDefinitions,
  makeTasks,
  setOffAs,
  setOffAt,
  taskAt,
} from "./set-apart-commands";
import { fitting, FoldedTools, Line, lineWidth, Tool, widthOf, type ToolSpec } from "./tool";
import {
  insertAnchor,
  insertCaption,
  insertNote,
  insertPageBreak,
  insertSectionBreak,
  insertSignposts,
  insertTable,
} from "./insert-commands";
import { ToolsHere } from "./tools-here";

// The choice of a paragraph’s kind, in pixels.
const kindWidth = 104;

const { strong, emphasis, superscript, subscript, strike, underline, small_caps, code, language } =
  schema.marks;
const nodes = schema.nodes;

/**
 * The tools of the text, in one row whatever the window's width: what has no room is in the menu at its end. Below
 * it stand the tools for what is around the cursor.
 */
export function Toolbar({
  bookId,
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
  bookId: string;
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
  const bar = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(Infinity);
  const taken = useTakenLink(({ taken }) => taken);
  const canGoBack = useTrail(({ footprints }) => footprints.length > 0);
  const canUndo = useHistory((all) => nextTurn(all, "undo", bookId) !== undefined);
  const canRedo = useHistory((all) => nextTurn(all, "redo", bookId) !== undefined);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setRoom(entry!.contentRect.width));
    observer.observe(bar.current!);
    return () => observer.disconnect();
  }, []);
  const run = (command: Command): void => {
    readSelection(view);
    command(view.state, view.dispatch, view);
    view.focus();
  };
  const tool = (
    label: string,
    icon: ToolSpec["icon"],
    command: Command,
    more: Partial<ToolSpec> = {},
  ): ToolSpec => ({
    label,
    icon,
    disabled: !command(state),
    onPress: () => run(command),
    ...more,
  });
  const asking = (ask: () => void) => (): void => {
    readSelection(view);
    ask();
  };
  const first: ToolSpec[] = [
    { label: "Link", icon: Link2, keys: `${mod} K`, words: true, onPress: asking(onLink) },
    ...(taken
      ? [
          {
            label: `Give the copied link: “${taken.text}”`,
            icon: Stamp,
            keys: "Alt Shift L",
            onPress: () => {
              readSelection(view);
              onGive();
              view.focus();
            },
          },
        ]
      : []),
  ];
  const middle: ToolSpec[] = [
    tool("Bold", Bold, toggleMark(strong!), {
      keys: `${mod} B`,
      pressed: hasMark(state, strong!),
      line: true,
    }),
    tool("Italic", Italic, toggleMark(emphasis!), { keys: `${mod} I`, pressed: hasMark(state, emphasis!) }),
    tool("Raised", Superscript, toggleMark(superscript!), { pressed: hasMark(state, superscript!) }),
    tool("Lowered", Subscript, toggleMark(subscript!), { pressed: hasMark(state, subscript!) }),
    tool("Struck through", Strikethrough, toggleMark(strike!), { pressed: hasMark(state, strike!) }),
    tool("Underlined", Underline, toggleMark(underline!), {
      keys: `${mod} U`,
      pressed: hasMark(state, underline!),
    }),
    tool("Small capitals", ALargeSmall, toggleMark(small_caps!), { pressed: hasMark(state, small_caps!) }),
    tool("Code", Code, toggleMark(code!), { keys: "Alt C", pressed: hasMark(state, code!) }),
    {
      label: "In another language",
      icon: Languages,
      pressed: hasMark(state, language!),
      disabled: wordsInLanguage(state) === null,
      onPress: asking(onLanguage),
    },
    tool("Note", Asterisk, insertNote, { line: true }),
    tool("Anchor", MapPin, insertAnchor, { keys: "Alt A" }),
    {
      label: "Cross-reference",
      icon: TextSearch,
      keys: "Alt R",
      disabled:
        !state.selection.$to.parent.inlineContent || state.selection.$to.parent.type.spec.code === true,
      onPress: asking(onReference),
    },
    { label: "Picture", icon: ImagePlus, onPress: () => picker.current?.click() },
    tool("Bulleted list", List, wrapInList(nodes.bullet_list!), { line: true }),
    tool("Numbered list", ListOrdered, wrapInList(nodes.ordered_list!)),
    tool("Quotation", Quote, setOffAs("quotation"), { pressed: setOffAt(state) === "quotation" }),
    tool("Listing", SquareCode, makeListing),
    tool("Table", Table, insertTable, { line: true }),
    tool("Caption", Captions, insertCaption),
    tool("Signpost list", Signpost, insertSignposts(contents)),
    tool("Section break", Minus, insertSectionBreak),
    {
      label: "Show the marks of anchors",
      icon: Eye,
      pressed: anchorsShown,
      line: true,
      onPress: () => onShowAnchors(!anchorsShown),
    },
    tool("Task list", ListChecks, makeTasks, {
      pressed: typeof taskAt(state) === "boolean",
      line: true,
    }),
    tool("Terms and meanings", BookA, insertDefinitions),
    tool("Credit", Signature, insertCredit),
    tool("Page break", SeparatorHorizontal, insertPageBreak),
    tool("Centred", TextAlignCenter, align("center"), { pressed: alignAt(state) === "center" }),
    tool("Aligned to the end", TextAlignEnd, align("end"), { pressed: alignAt(state) === "end" }),
  ];
  const last: ToolSpec[] = [
    ...(canGoBack
      ? [{ label: "Back to where you were", icon: Footprints, keys: "Alt B", onPress: onBack }]
      : []),
    {
      label: "Undo",
      icon: Undo2,
      keys: `${mod} Z`,
      disabled: !canUndo,
      onPress: () => pressUndo("undo"),
    },
    {
      label: "Redo",
      icon: Redo2,
      keys: `${mod} Shift Z`,
      disabled: !canRedo,
      onPress: () => pressUndo("redo"),
    },
  ];
  const latest = useRef<readonly ToolSpec[]>([]);
  useLayoutEffect(() => {
    latest.current = [...first, ...middle, ...last];
  });
  const press = useCallback(
    (label: string) => latest.current.find((one) => one.label === label)?.onPress(),
    [],
  );
  const always = widthOf([...first, ...last]) + 2 * lineWidth + kindWidth;
  const [beside, folded] = fitting(middle, room - always);
  const block = state.selection.$from.parent;
  const style =
    block.type === nodes.heading
      ? String(block.attrs["level"])
      : block.type === nodes.title
        ? "title"
        : "text";
  return (
    <div className="border-b border-hairline bg-paper">
      <Bar.Root aria-label="Text tools" className="px-3 py-0.5">
        <div ref={bar} className="flex items-center gap-0.5 overflow-hidden p-0.5">
          {first.map((one) => (
            <Tool key={one.icon.displayName} {...one} onPress={press} />
          ))}
          <Line />
          <select
            aria-label="Kind of paragraph"
            value={style}
            disabled={style === "title"}
            onChange={(event) => {
              const { value } = event.target;
              run(value === "text" ? makeParagraph : makeHeading(Number(value)));
            }}
            className="min-h-7 min-w-0 border border-hairline bg-paper px-1 text-sm"
          >
            {style === "title" && <option value="title">Chapter title</option>}
            <option value="text">Paragraph</option>
            {[1, 2, 3, 4].map((level) => (
              <option key={level} value={level}>
                Heading {level}
              </option>
            ))}
          </select>
          {beside.map((one) => (
            <Tool key={one.label} {...one} onPress={press} />
          ))}
          <Line />
          {last.map((one) => (
            <Tool key={one.label} {...one} onPress={press} />
          ))}
          {folded.length > 0 && <FoldedTools tools={folded} />}
        </div>
      </Bar.Root>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="Picture file"
        accept="image/png,image/jpeg,image/gif,image/svg+xml,image/webp,image/avif"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPicture(file);
          event.target.value = "";
        }}
      />
      <ToolsHere state={state} run={run} />
    </div>
  );
}

function hasMark(state: EditorState, type: MarkType): boolean {
  const { from, to, empty, $from } = state.selection;
  return empty
    ? Boolean(type.isInSet(state.storedMarks ?? $from.marks()))
    : state.doc.rangeHasMark(from, to, type);
}
