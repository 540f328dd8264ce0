// Where Rendal is served below a path of its host, the page says so by its base. The tests of plain functions have no page.
const base = typeof document === "undefined" ? "" : new URL(document.baseURI).pathname.replace(/\/$/, "");

/** The path that all addresses of Rendal begin with: "/rendal"; empty where it has a host to itself. */
export const basePath = base;

/** An address of Rendal as the browser asks for it. */
export const served = (path: string) => basePath + path;
