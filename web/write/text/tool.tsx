import { Ellipsis, type LucideIcon } from "lucide-react";
import { DropdownMenu, Toolbar as Bar } from "radix-ui";
import { memo, useRef, type ReactNode } from "react";

/** One tool; `line` begins a group. */
export interface ToolSpec {
  label: string;
  icon: LucideIcon;
  keys?: string;
  pressed?: boolean;
  disabled?: boolean;
  /** Whether its name stands beside its sign. */
  words?: boolean;
  line?: boolean;
  onPress: () => void;
}

// As wide as they are drawn, in pixels.
const toolWidth = 30;
export const lineWidth = 15;
const wordsWidth = 36;

/** The tools that the row has no room for. */
export function FoldedTools({ tools }: { tools: readonly ToolSpec[] }) {
  const hasRun = useRef(false);
  return (
    <DropdownMenu.Root modal={false} onOpenChange={() => (hasRun.current = false)}>
      <Bar.Button asChild>
        <DropdownMenu.Trigger
          aria-label="More tools"
          data-tip="More tools"
          onMouseDown={(event) => event.preventDefault()}
          className={toolLook}
        >
          <Ellipsis aria-hidden size={16} />
        </DropdownMenu.Trigger>
      </Bar.Button>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          collisionPadding={8}
          // What a tool asks for has the focus then.
          onCloseAutoFocus={(event) => hasRun.current && event.preventDefault()}
          className="z-50 max-h-(--radix-dropdown-menu-content-available-height) overflow-y-auto border border-ink bg-paper p-1 shadow-md"
        >
          {tools.map(({ label, icon: Icon, keys, pressed, disabled, onPress }) => (
            <DropdownMenu.Item
              key={label}
              disabled={disabled ?? false}
              onSelect={() => {
                hasRun.current = true;
                onPress();
              }}
              className="flex min-h-7 cursor-pointer items-center gap-2 px-2 py-1 outline-none data-[disabled]:opacity-45 data-[highlighted]:bg-blue-wash"
            >
              <Icon aria-hidden size={16} />
              <span className="grow">{label}</span>
              {pressed && <span className="text-sm text-faint">on</span>}
              {keys && <span className="pl-4 font-mono text-[0.8rem] text-faint">{keys}</span>}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const toolLook =
  "inline-flex min-h-7 min-w-7 shrink-0 items-center justify-center gap-1 px-1.5 hover:bg-blue-wash disabled:opacity-45 aria-pressed:bg-blue-wash aria-pressed:text-blue";

export function Line() {
  return <span aria-hidden className="mx-1.5 h-5 shrink-0 border-l border-hairline" />;
}

/** A tool that is drawn anew only when it looks otherwise. @param onPress is told the label, so that it stays the same for all */
export const Tool = memo(function Tool({
  label,
  icon: Icon,
  keys,
  pressed,
  disabled,
  words = false,
  line = false,
  onPress,
}: Omit<ToolSpec, "onPress"> & { onPress: (label: string) => void }): ReactNode {
  return (
    <>
      {line && <Line />}
      <Bar.Button
        aria-label={label}
        data-tip={keys ? `${label} (${keys})` : label}
        aria-pressed={pressed}
        disabled={disabled}
        // The text keeps its selection while a tool is pressed.
        onMouseDown={(event) => event.preventDefault()}
        onClick={() => onPress(label)}
        className={toolLook}
      >
        <Icon aria-hidden size={16} />
        {words && label}
      </Bar.Button>
    </>
  );
});

/** How wide tools are beside each other, in pixels. */
export function widthOf(tools: readonly ToolSpec[]): number {
  return tools.reduce(
    (sum, { line, words }) => sum + toolWidth + (line ? lineWidth : 0) + (words ? wordsWidth : 0),
    0,
  );
}

/** The tools that fit into a width, and those that do not. */
export function fitting(
  tools: readonly ToolSpec[],
  width: number,
): [beside: readonly ToolSpec[], folded: readonly ToolSpec[]] {
  if (widthOf(tools) <= width) return [tools, []];
  let count = 0;
  // The menu takes room too.
  while (count < tools.length && widthOf(tools.slice(0, count + 1)) + toolWidth <= width) count += 1;
  return [tools.slice(0, count), tools.slice(count)];
}
