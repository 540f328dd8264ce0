import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { expect, test } from "vitest";

const files = readdirSync("src", { recursive: true, encoding: "utf8" }).map((path) => join("src", path));
const sources = read(/\.tsx?$/);
const styles = read(/\.css$/);
const modules = styles
  .filter((f) => f.path.endsWith(".module.css"))
  .map(({ path, text }) => ({ path, classes: classesOf(text) }));

function read(name: RegExp) {
  return files.filter((path) => name.test(path)).map((path) => ({ path, text: readFileSync(path, "utf8") }));
}

/** The classes of a module, by the names that code uses: `parcel-row` is `parcelRow`. */
function classesOf(css: string): Set<string> {
  const own = css.replace(/\/\*.*?\*\//gs, "").replace(/:global\([^)]*\)/g, "");
  const selectors = own.replace(/\{[^{}]*\}/g, "{}");
  return new Set([...selectors.matchAll(/\.([a-z][\w-]*)/g)].map((m) => camel(m[1] ?? "")));
}

function camel(name: string): string {
  return name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
}

/** What a source uses of each module: the names, and whether others are picked while it runs. */
function usesOf(source: { path: string; text: string }) {
  return [...source.text.matchAll(/^import (\w+) from "(\.[^"]+\.module\.css)";/gm)].map(
    ([, name = "", from = ""]) => ({
      module: join(dirname(source.path), from),
      names: [...source.text.matchAll(new RegExp(`\\b${name}\\.(\\w+)`, "g"))].map((m) => m[1] ?? ""),
      isPicked: source.text.includes(`${name}[`),
    }),
  );
}

const uses = sources.flatMap(usesOf);

test("every class that a component uses is in its module", () => {
  const missing = uses.flatMap((u) => {
    const module = modules.find((m) => m.path === u.module);
    return u.names.filter((name) => !module?.classes.has(name)).map((name) => `${u.module}: ${name}`);
  });
  expect(uses.length).toBeGreaterThan(40);
  expect(missing).toEqual([]);
});

test("every class of a module is used", () => {
  const unused = modules.flatMap((m) => {
    const of = uses.filter((u) => u.module === m.path);
    const used = new Set(of.flatMap((u) => u.names));
    return of.some((u) => u.isPicked) ? [] : [...m.classes].filter((c) => !used.has(c)).map((c) => `${m.path}: ${c}`);
  });
  expect(unused).toEqual([]);
});

test("nothing goes by the class names of the component library", () => {
  expect([...sources, ...styles].filter((f) => /\.ant-[a-z]/.test(f.text)).map((f) => f.path)).toEqual([]);
});
