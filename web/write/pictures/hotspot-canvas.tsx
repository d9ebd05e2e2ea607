import {
  fitHotspot,
  hotspotBox,
  moveHotspot,
  type HotspotShape,
  type Point,
} from "@vennet/core/manuscript/hotspot";
import type Konva from "konva";
import type { KonvaEventObject } from "konva/lib/Node";
import { useEffect, useRef, useState } from "react";
import {
  Circle,
  Ellipse,
  Group,
  Image as Picture,
  Label,
  Layer,
  Line,
  Rect,
  Stage,
  Tag,
  Text,
  Transformer,
} from "react-konva";
import type { DraftHotspot, Tool } from "./draft-hotspot";

/** Less than this share of the picture is a click that slipped, not an area. */
const smallest = 0.01;

interface Size {
  width: number;
  height: number;
}

/** The picture with its areas, to be drawn on. Whatever is done here can be done by the list beside it too. */
export function HotspotCanvas({
  address,
  alt,
  hotspots,
  captions,
  chosenId,
  tool,
  onChoose,
  onChange,
  onDraw,
}: {
  address: string;
  alt: string;
  hotspots: DraftHotspot[];
  captions: Map<string, string>;
  chosenId: string | null;
  tool: Tool;
  onChoose: (id: string | null) => void;
  onChange: (id: string, points: Point[]) => void;
  onDraw: (shape: HotspotShape, points: Point[]) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const image = useImage(address);
  const size = useFittedSize(frame, image);
  const [drawing, setDrawing] = useState<Point[]>([]);
  const transformer = useRef<Konva.Transformer>(null);
  const nodes = useRef(new Map<string, Konva.Node>());
  const colours = useColours();

  useEffect(() => {
    const node = tool === "choose" && chosenId !== null ? nodes.current.get(chosenId) : undefined;
    transformer.current?.nodes(node ? [node] : []);
  }, [chosenId, tool, hotspots, size]);

  useEffect(() => setDrawing([]), [tool]);
  useEffect(() => {
    if (tool !== "polygon") return;
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === "Escape") setDrawing([]);
      if (event.key !== "Enter" || drawing.length < 3) return;
      onDraw("polygon", drawing);
      setDrawing([]);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [tool, drawing, onDraw]);

  const pointAt = (event: KonvaEventObject<Event>): Point => {
    const at = event.target.getStage()!.getPointerPosition()!;
    return [share(at.x, size!.width), share(at.y, size!.height)];
  };
  const onDown = (event: KonvaEventObject<Event>): void => {
    if (tool === "choose") {
      if (event.target.getStage() === event.target || event.target.name() === "picture") onChoose(null);
      return;
    }
    const point = pointAt(event);
    if (tool !== "polygon") return setDrawing([point, point]);
    const [first] = drawing;
    if (first && drawing.length >= 3 && Math.hypot(first[0] - point[0], first[1] - point[1]) < smallest * 2) {
      onDraw("polygon", drawing);
      setDrawing([]);
    } else setDrawing([...drawing, point]);
  };
  const onMove = (event: KonvaEventObject<Event>): void => {
    if (drawing.length === 2 && (tool === "rectangle" || tool === "ellipse"))
      setDrawing([drawing[0]!, pointAt(event)]);
  };
  const onUp = (): void => {
    if (tool !== "rectangle" && tool !== "ellipse") return;
    const { width, height } =
      drawing.length === 2 ? hotspotBox({ points: drawing }) : { width: 0, height: 0 };
    if (width > smallest && height > smallest) onDraw(tool, drawing);
    setDrawing([]);
  };

  return (
    <div ref={frame} className="w-full border border-hairline">
      {!image && (
        <p role="status" className="p-6 text-faint">
          Fetching the picture …
        </p>
      )}
      {image && size && (
        <div role="img" aria-label={`The picture with its areas: ${alt}`}>
          <Stage
            width={size.width}
            height={size.height}
            onPointerDown={onDown}
            onPointerMove={onMove}
            onPointerUp={onUp}
            style={{ cursor: tool === "choose" ? "default" : "crosshair" }}
          >
            <Layer>
              <Picture name="picture" image={image} width={size.width} height={size.height} />
              {hotspots.map((hotspot) => (
                <Area
                  key={hotspot.id}
                  hotspot={hotspot}
                  size={size}
                  colour={hotspot.destination === null ? colours.red : colours.blue}
                  isChosen={hotspot.id === chosenId}
                  canMove={tool === "choose"}
                  keep={(node) => {
                    if (node) nodes.current.set(hotspot.id, node);
                    else nodes.current.delete(hotspot.id);
                  }}
                  onChoose={() => onChoose(hotspot.id)}
                  onChange={(points) => onChange(hotspot.id, points)}
                />
              ))}
              {hotspots.map((hotspot) => {
                const box = hotspotBox(hotspot);
                return (
                  <Label
                    key={hotspot.id}
                    x={box.x * size.width}
                    y={(box.y + box.height) * size.height + 3}
                    listening={false}
                  >
                    <Tag fill={colours.paper} opacity={0.9} />
                    <Text
                      text={`${hotspot.alt || "–"} → ${captions.get(hotspot.id) ?? ""}`}
                      fontSize={12}
                      padding={2}
                      width={180}
                      wrap="none"
                      ellipsis
                      fill={colours.ink}
                      fontFamily="Atkinson Hyperlegible Next Variable"
                    />
                  </Label>
                );
              })}
              <Drawing tool={tool} points={drawing} size={size} colour={colours.blue} />
              <Transformer
                ref={transformer}
                rotateEnabled={false}
                flipEnabled={false}
                anchorSize={9}
                borderStroke={colours.blue}
                anchorStroke={colours.blue}
                keepRatio={false}
              />
            </Layer>
          </Stage>
        </div>
      )}
    </div>
  );
}

function Area({
  hotspot,
  size,
  colour,
  isChosen,
  canMove,
  keep,
  onChoose,
  onChange,
}: {
  hotspot: DraftHotspot;
  size: Size;
  colour: string;
  isChosen: boolean;
  canMove: boolean;
  keep: (node: Konva.Node | null) => void;
  onChoose: () => void;
  onChange: (points: Point[]) => void;
}) {
  const box = hotspotBox(hotspot);
  const { line, thickness, colour: own } = hotspot.frame;
  const isFramed = line === "solid" || line === "dashed";
  const look = {
    stroke: isFramed ? own : colour,
    strokeWidth: isFramed ? thickness : isChosen ? 2 : 1.5,
    // An area without a frame is drawn dotted here, and not at all for readers.
    dash: line === "dashed" ? [thickness * 3, thickness * 2] : isFramed ? [] : [2, 4],
    fill: colour,
    opacity: 1,
    strokeScaleEnabled: false,
  };
  const fill = { ...look, fill: `${colour}22` };
  const [width, height] = [box.width * size.width, box.height * size.height];
  return (
    <Group
      ref={keep}
      x={box.x * size.width}
      y={box.y * size.height}
      draggable={canMove}
      onPointerDown={() => canMove && onChoose()}
      onDragEnd={({ target }) => {
        const points = moveHotspot(
          hotspot,
          target.x() / size.width - box.x,
          target.y() / size.height - box.y,
        ).points;
        // Back to where React has it, so that an area pushed out of the picture comes back with it.
        target.position({ x: box.x * size.width, y: box.y * size.height });
        onChange(points);
      }}
      onTransformEnd={({ target }) => {
        const next = {
          x: target.x() / size.width,
          y: target.y() / size.height,
          width: box.width * target.scaleX(),
          height: box.height * target.scaleY(),
        };
        target.scale({ x: 1, y: 1 });
        onChange(fitHotspot(hotspot, next).points);
      }}
    >
      {hotspot.shape === "rectangle" && <Rect width={width} height={height} {...fill} />}
      {hotspot.shape === "ellipse" && (
        <Ellipse x={width / 2} y={height / 2} radiusX={width / 2} radiusY={height / 2} {...fill} />
      )}
      {hotspot.shape === "polygon" && (
        <Line
          closed
          points={hotspot.points.flatMap(([x, y]) => [(x - box.x) * size.width, (y - box.y) * size.height])}
          {...fill}
        />
      )}
      {line === "underlined" && (
        <Line points={[0, height, width, height]} stroke={own} strokeWidth={thickness} />
      )}
    </Group>
  );
}

/** What is being drawn at this moment. */
function Drawing({
  tool,
  points,
  size,
  colour,
}: {
  tool: Tool;
  points: Point[];
  size: Size;
  colour: string;
}) {
  if (points.length === 0) return null;
  const scaled = points.flatMap(([x, y]) => [x * size.width, y * size.height]);
  if (tool === "polygon") {
    return (
      <>
        <Line points={scaled} stroke={colour} strokeWidth={2} />
        <Circle x={scaled[0]!} y={scaled[1]!} radius={5} fill={colour} />
      </>
    );
  }
  const { x, y, width, height } = hotspotBox({ points });
  const look = { stroke: colour, strokeWidth: 2 };
  const [w, h] = [width * size.width, height * size.height];
  return tool === "ellipse" ? (
    <Ellipse
      x={x * size.width + w / 2}
      y={y * size.height + h / 2}
      radiusX={w / 2}
      radiusY={h / 2}
      {...look}
    />
  ) : (
    <Rect x={x * size.width} y={y * size.height} width={w} height={h} {...look} />
  );
}

function useImage(address: string): HTMLImageElement | null {
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  useEffect(() => {
    const loading = new Image();
    loading.onload = () => setImage(loading);
    loading.src = address;
    return () => {
      loading.onload = null;
    };
  }, [address]);
  return image;
}

/** The picture's size as wide as there is room, and not much higher than the window. */
function useFittedSize(
  frame: React.RefObject<HTMLDivElement | null>,
  image: HTMLImageElement | null,
): Size | null {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, [frame]);
  if (!image || width === 0) return null;
  const ratio = image.naturalHeight / image.naturalWidth;
  const shown = Math.min(width, (innerHeight - 170) / ratio);
  return { width: shown, height: shown * ratio };
}

function useColours(): Record<"blue" | "red" | "ink" | "paper", string> {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string): string => style.getPropertyValue(`--${name}`).trim();
  return { blue: colour("blue"), red: colour("red"), ink: colour("ink"), paper: colour("paper") };
}

function share(at: number, size: number): number {
  return Math.round(Math.min(1, Math.max(0, at / size)) * 10_000) / 10_000;
}
