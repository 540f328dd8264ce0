import { lazy, type ComponentType } from "react";

/** A page that is loaded when it is gone to. */
export const page = <Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) =>
  lazy(async () => ({ default: (await load())[name] }));
