import { cleanup, configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";

// What a browser has and the document of the tests lacks; sizes are those of a window of 1280 × 800.
if (typeof window !== "undefined") {
  vi.stubGlobal("matchMedia", (media: string) => ({
    media,
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }));
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  const BrowserRequest = Request;
  vi.stubGlobal(
    "Request",
    class extends BrowserRequest {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(input instanceof BrowserRequest ? input : new URL(String(input), location.href), init);
      }
    },
  );
  Element.prototype.checkVisibility = () => true;
  Element.prototype.scrollIntoView = () => undefined;
  Element.prototype.scrollTo = () => undefined;
  Object.defineProperties(HTMLElement.prototype, {
    clientHeight: { configurable: true, get: () => 600 },
    clientWidth: { configurable: true, get: () => 800 },
  });
  // How fast the machine is decides nothing.
  configure({ asyncUtilTimeout: 20_000 });
  afterEach(cleanup);
}
