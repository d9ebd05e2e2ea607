/** How tests, benchmarks and screenshots start Debian's browser, in its form that draws no window of its own. */
export const browserLaunch = {
  executablePath: "/usr/bin/chromium-headless-shell",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
