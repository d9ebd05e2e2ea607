import { useRef, useState, type ReactNode } from "react";
import { droppedFiles, type DroppedFiles } from "./dropped-files";

/** A page onto which a manuscript can be dropped anywhere: a file, several, or a folder. */
export function DropTarget({
  children,
  onDrop,
}: {
  children: ReactNode;
  onDrop: (dropped: DroppedFiles) => void;
}) {
  const [over, setOver] = useState(false);
  // Every element that the pointer passes tells of it.
  const depth = useRef(0);
  const bearsFiles = (transfer: DataTransfer): boolean => transfer.types.includes("Files");
  const move = (by: number): void => {
    depth.current = Math.max(0, depth.current + by);
    setOver(depth.current > 0);
  };
  return (
    <div
      className="relative h-full"
      onDragEnter={(event) => bearsFiles(event.dataTransfer) && move(1)}
      onDragLeave={(event) => bearsFiles(event.dataTransfer) && move(-1)}
      onDragOver={(event) => bearsFiles(event.dataTransfer) && event.preventDefault()}
      onDrop={(event) => {
        if (!bearsFiles(event.dataTransfer)) return;
        event.preventDefault();
        move(-depth.current);
        void droppedFiles(event.dataTransfer).then(onDrop);
      }}
    >
      {children}
      {over && (
        <p
          aria-hidden
          className="pointer-events-none absolute inset-3 z-40 grid place-items-center border-2 border-blue bg-paper/90 font-serif text-2xl"
        >
          Let go to bring it in
        </p>
      )}
    </div>
  );
}
