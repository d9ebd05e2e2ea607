import { useEffect, useState, type ComponentType } from "react";
import { Waiting } from "./notice";

/**
 * A component that is fetched when it is first shown, with a sign of waiting until it is there. React's own way (`lazy`)
 * holds back for a third of a second what comes soon after such a sign.
 * @param what is said while it is waited for
 * @param options.isSoonShown whether it is fetched at once; if it does not come then, it is asked for again where it is shown
 */
export function later<Props extends object>(
  what: string,
  load: () => Promise<ComponentType<Props>>,
  { isSoonShown = false } = {},
): ComponentType<Props> {
  let loaded: ComponentType<Props> | null = null;
  const fetched = async (): Promise<ComponentType<Props>> => (loaded = await load());
  if (isSoonShown) fetched().catch(() => undefined);
  return function Later(props) {
    const [Loaded, setLoaded] = useState<ComponentType<Props> | null>(() => loaded);
    const [failure, setFailure] = useState<Error | null>(null);
    useEffect(() => {
      if (Loaded) return;
      let isLeft = false;
      fetched().then(
        (component) => !isLeft && setLoaded(() => component),
        (error: unknown) => !isLeft && setFailure(error as Error),
      );
      return () => {
        isLeft = true;
      };
    }, [Loaded]);
    // The router says that the page could not be had.
    if (failure) throw failure;
    return Loaded ? <Loaded {...props} /> : <Waiting what={what} />;
  };
}
