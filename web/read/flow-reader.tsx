import { behindPath } from "@vennet/core/destination/kinds/file";
import { hasScheme } from "@vennet/core/proof/exported-folder";
import { useMemo, useRef, useState } from "react";
import type { ExportWithProof } from "../api/client";
import { AskedLink } from "./asked-link";
import type { OutwardLink } from "./outward-link";
import {
  FlowScreen,
  type Device,
  type Light,
  type PressedLink,
  type ScreenState,
  type ShownScreen,
} from "./flow-screen";
import { resolvePath, type OpenFlow } from "./open-flow";
import { Choice, ReaderFrame, settingBox, Tick } from "./reader-frame";
import { FlowWalker, screenKey, type Pressed, type PressedFlowReader } from "./walk/flow-walker";
import { Shown } from "./walk/shown";
import { WalkPanel } from "./walk/walk-panel";

const phone: Device = { name: "phone", width: 340, height: 600, isGrey: false };
const devices: Record<OpenFlow["kind"], [Device, ...Device[]]> = {
  "e-book": [
    phone,
    { name: "tablet", width: 560, height: 640, isGrey: false },
    { name: "grey screen", width: 460, height: 620, isGrey: true },
  ],
  "web page": [{ name: "computer", width: 720, height: 640, isGrey: false }, phone],
};
const lights: [Light, string][] = [
  ["day", "by day"],
  ["lamp", "by lamp"],
  ["night", "at night"],
];
const sizes = [80, 100, 120, 150];

/** An exported file whose text flows on the screens that it is read on, with its contents and links. */
export function FlowReader({
  bookId,
  file,
  proof,
}: {
  bookId: string;
  file: OpenFlow;
  proof: ExportWithProof;
}) {
  const isEpub = file.inScreens;
  const [device, setDevice] = useState(devices[file.kind][0]);
  const [light, setLight] = useState<Light>("day");
  const [size, setSize] = useState(100);
  const [outlined, setOutlined] = useState(true);
  const [asksTwice, setAsksTwice] = useState(true);
  const [at, setAt] = useState<ScreenState>({
    path: file.pages[0]!.path,
    fragment: "",
    link: null,
    screen: 0,
  });
  const [laid, setLaid] = useState({ screens: 1, shown: 0 });
  const [trail, setTrail] = useState<ScreenState[]>([]);
  const [asked, setAsked] = useState<(OutwardLink & { byRobot: boolean }) | null>(null);
  /** The address that a grey screen shows at the first tap. */
  const [firstTapped, setFirstTapped] = useState<OutwardLink | null>(null);
  const [told, setTold] = useState("");
  const order = useMemo(() => file.pages.filter(({ isLinear }) => isLinear).map(({ path }) => path), [file]);
  const place = order.indexOf(at.path);
  const shown = useRef(new Shown<ShownScreen>());
  // A web page is scrolled by its height, a screen less a line or two.
  const step = isEpub ? 1 : device.height - 48;

  const stay = (): void => {
    setAsked(null);
    setFirstTapped(null);
  };
  const go = (to: ScreenState): void => {
    stay();
    setAt(to);
  };
  const jump = (path: string, fragment: string): ScreenState => {
    const to = { path, fragment, link: null, screen: null };
    setTrail([...trail, { path: at.path, fragment: "", link: null, screen: laid.shown }]);
    go(to);
    setTold("");
    return to;
  };
  const isPage = (path: string): boolean => file.pages.some((page) => page.path === path);
  const back = (): void => {
    const last = trail.at(-1);
    if (!last) return;
    setTrail(trail.slice(0, -1));
    go(last);
    setTold("Back where you were.");
  };
  const turn = (by: 1 | -1): void => {
    const last = isEpub ? laid.screens - 1 : laid.screens - device.height;
    const next = Math.min(last, Math.max(0, laid.shown + by * step));
    if (Math.abs(next - laid.shown) >= 1) return go({ ...at, fragment: "", link: null, screen: next });
    const path = order[place + by];
    // A page outside the reading order has no neighbours.
    if (path !== undefined && place !== -1)
      go({ path, fragment: "", link: null, screen: by === 1 ? 0 : Number.MAX_SAFE_INTEGER });
  };
  const press = ({ name, href }: PressedLink, byRobot = false): Pressed => {
    const isOutside = hasScheme(href);
    const { path, fragment } = isOutside ? { path: "", fragment: "" } : resolvePath(at.path, href);
    if (!isOutside && isPage(path)) return { goesTo: jump(path, fragment) };
    const link = { name, address: isOutside ? href : path + behindPath(fragment) };
    if (device.isGrey && asksTwice && firstTapped?.address !== link.address) {
      setAsked(null);
      setFirstTapped(link);
    } else {
      setFirstTapped(null);
      setAsked({ ...link, byRobot });
    }
    return { asks: link.address };
  };
  const pressed = useRef<PressedFlowReader>(null!);
  pressed.current = { go, press: (link) => press(link, true), back, stay };
  const walker = useMemo(() => new FlowWalker(file, pressed, shown.current), [file]);
  const screens = isEpub ? laid.screens : Math.ceil(laid.screens / device.height);
  const screen = isEpub ? laid.shown + 1 : Math.min(screens, Math.ceil(laid.shown / device.height) + 1);

  return (
    <ReaderFrame
      unit="screen"
      position={
        <span className="tabular-nums" role="status">
          Screen {screen} of {screens}
        </span>
      }
      onTurn={turn}
      settings={
        <>
          <Choice label="On a">
            <select
              value={device.name}
              onChange={(event) =>
                setDevice(devices[file.kind].find(({ name }) => name === event.target.value)!)
              }
              className={settingBox}
            >
              {devices[file.kind].map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </Choice>
          {isEpub && (
            <>
              <Choice label="Read">
                <select
                  value={light}
                  onChange={(event) => setLight(event.target.value as Light)}
                  className={settingBox}
                >
                  {lights.map(([one, words]) => (
                    <option key={one} value={one}>
                      {words}
                    </option>
                  ))}
                </select>
              </Choice>
              <Choice label="Letters">
                <select
                  value={size}
                  onChange={(event) => setSize(Number(event.target.value))}
                  className={settingBox}
                >
                  {sizes.map((percent) => (
                    <option key={percent} value={percent}>
                      {percent} %
                    </option>
                  ))}
                </select>
              </Choice>
            </>
          )}
          <Tick label="Outline the links" isOn={outlined} onChange={setOutlined} />
          {device.isGrey && (
            <Tick label="The first tap shows the address" isOn={asksTwice} onChange={setAsksTwice} />
          )}
        </>
      }
      canGoBack={trail.length > 0}
      onBack={back}
      told={told}
      contentsName="Contents of the file"
      contents={file.contents}
      onGoTo={({ path, fragment }) =>
        isPage(path) ? jump(path, fragment) : setTold("This entry leads nowhere in the file.")
      }
      deskName="The screen"
      walk={<WalkPanel walker={walker} proof={proof} />}
      asked={
        asked ? (
          <AskedLink
            key={asked.address}
            bookId={bookId}
            link={asked}
            beside={file.files}
            takesFocus={!asked.byRobot}
            onDone={stay}
          />
        ) : firstTapped ? (
          <>
            <p className="font-serif">{firstTapped.name}</p>
            <p className="mt-1 font-mono text-[0.9rem] [overflow-wrap:anywhere]">{firstTapped.address}</p>
            <p className="mt-2 text-faint">Tap the link once more to open it.</p>
          </>
        ) : null
      }
      invitation="Press a link on the screen. A jump goes there at once; an address is shown here before anything is opened."
    >
      <FlowScreen
        file={file}
        device={device}
        light={light}
        size={size}
        outlined={outlined}
        at={at}
        onShown={(state, view) => {
          setLaid((before) =>
            before.screens === view.screens && before.shown === view.shown
              ? before
              : { screens: view.screens, shown: view.shown },
          );
          shown.current.tell(screenKey(state), view);
        }}
        onPress={press}
      />
    </ReaderFrame>
  );
}
