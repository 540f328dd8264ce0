const browsers: [RegExp, string][] = [
  [/Edg\//, "Edge"],
  [/Firefox\//, "Firefox"],
  [/Chrom(e|ium)\//, "Chrome"],
  [/Safari\//, "Safari"],
];

const systems: [RegExp, string][] = [
  [/Windows/, "Windows"],
  [/iPhone|iPad/, "iOS"],
  [/Mac OS X/, "macOS"],
  [/Android/, "Android"],
  [/Linux/, "Linux"],
];

/** What a browser says that it is (RFC 9110, User-Agent), in two words; its own words where they are of no known form. */
export function browserName(agent: string): string {
  const browser = browsers.find(([form]) => form.test(agent))?.[1];
  const system = systems.find(([form]) => form.test(agent))?.[1];
  return browser && system ? `${browser} on ${system}` : agent === "" ? "a program" : agent.slice(0, 40);
}
