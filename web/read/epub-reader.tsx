import { hasScheme } from "@vennet/core/proof/exported-folder";
import { useMemo, useState } from "react";
import { AskedLink, type OutwardLink } from "./asked-link";
import { EpubScreen, type Device, type Light, type PressedLink, type ScreenState } from "./epub-screen";
import { Choice, ReaderFrame, settingBox, Tick } from "./reader-frame";
import { resolvePath, type OpenEpub } from "./open-epub";

const devices: Device[] = [
  { name: "phone", width: 340, height: 600, isGrey: false },
  { name: "tablet", width: 560, height: 640, isGrey: false },
  { name: "grey screen", width: 460, height: 620, isGrey: true },
];
const lights: [Light, string][] = [
  ["day", "by day"],
  ["lamp", "by lamp"],
  ["night", "at night"],
];
const sizes = [80, 100, 120, 150];

/** An exported e-book on the screens of a phone, a tablet and a grey device, with its contents and links. */
export function EpubReader({ bookId, epub }: { bookId: string; epub: OpenEpub }) {
  const [device, setDevice] = useState(devices[0]!);
  const [light, setLight] = useState<Light>("day");
  const [size, setSize] = useState(100);
  const [outlined, setOutlined] = useState(true);
  const [asksTwice, setAsksTwice] = useState(true);
  const [at, setAt] = useState<ScreenState>({ path: epub.pages[0]!.path, fragment: "", screen: 0 });
  const [laid, setLaid] = useState({ screens: 1, shown: 0 });
  const [trail, setTrail] = useState<ScreenState[]>([]);
  const [asked, setAsked] = useState<OutwardLink | null>(null);
  /** The address that a grey screen shows at the first tap. */
  const [shown, setShown] = useState<OutwardLink | null>(null);
  const [told, setTold] = useState("");
  const order = useMemo(() => epub.pages.filter(({ isLinear }) => isLinear).map(({ path }) => path), [epub]);
  const place = order.indexOf(at.path);

  const go = (to: ScreenState): void => {
    setAsked(null);
    setShown(null);
    setAt(to);
  };
  const jump = (path: string, fragment: string): void => {
    if (!epub.pages.some((page) => page.path === path))
      return setTold("This link leads nowhere in the e-book.");
    setTrail([...trail, { path: at.path, fragment: "", screen: laid.shown }]);
    go({ path, fragment, screen: null });
    setTold("");
  };
  const back = (): void => {
    const last = trail.at(-1);
    if (!last) return;
    setTrail(trail.slice(0, -1));
    go(last);
    setTold("Back where you were.");
  };
  const turn = (by: 1 | -1): void => {
    const next = laid.shown + by;
    if (next >= 0 && next < laid.screens) return go({ ...at, fragment: "", screen: next });
    const path = order[place + by];
    // A page outside the reading order has no neighbours.
    if (path !== undefined && place !== -1) go({ path, fragment: "", screen: by === 1 ? 0 : Infinity });
  };
  const press = ({ name, href }: PressedLink): void => {
    const isOutside = hasScheme(href);
    const { path, fragment } = isOutside ? { path: "", fragment: "" } : resolvePath(at.path, href);
    if (!isOutside && epub.pages.some((page) => page.path === path)) return jump(path, fragment);
    const link = { name, address: isOutside ? href : path };
    const isSecond = shown?.address === link.address;
    if (device.isGrey && asksTwice && !isSecond) {
      setAsked(null);
      setShown(link);
    } else {
      setShown(null);
      setAsked(link);
    }
  };

  return (
    <ReaderFrame
      unit="screen"
      position={
        <span className="tabular-nums" role="status">
          Screen {laid.shown + 1} of {laid.screens}
        </span>
      }
      onTurn={turn}
      settings={
        <>
          <Choice label="On a">
            <select
              value={device.name}
              onChange={(event) => setDevice(devices.find(({ name }) => name === event.target.value)!)}
              className={settingBox}
            >
              {devices.map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </Choice>
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
      contents={epub.contents}
      onGoTo={({ path, fragment }) => jump(path, fragment)}
      deskName="The screen"
      aside={
        asked ? (
          <AskedLink bookId={bookId} link={asked} beside={epub.files} onDone={() => setAsked(null)} />
        ) : shown ? (
          <>
            <p className="font-serif">{shown.name}</p>
            <p className="mt-1 font-mono text-[0.9rem] [overflow-wrap:anywhere]">{shown.address}</p>
            <p className="mt-2 text-faint">Tap the link once more to open it.</p>
          </>
        ) : (
          <p className="text-faint">
            Press a link on the screen. A jump goes there at once; an address is shown here before anything is
            opened.
          </p>
        )
      }
    >
      <EpubScreen
        epub={epub}
        device={device}
        light={light}
        size={size}
        outlined={outlined}
        at={at}
        onLaidOut={(screens, now) =>
          setLaid((before) =>
            before.screens === screens && before.shown === now ? before : { screens, shown: now },
          )
        }
        onPress={press}
      />
    </ReaderFrame>
  );
}
