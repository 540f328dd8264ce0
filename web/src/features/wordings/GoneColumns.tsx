import { Alert, Button } from "antd";
import type { Schemas } from "../../shared/api/client";

/** The columns that a wording uses and the files have not any more, each with what it may be called now. */
export function GoneColumns({
  gone,
  isFixed,
  onUse,
}: {
  gone: Schemas["GoneColumn"][];
  isFixed: boolean;
  /** Puts another column in its place, everywhere in the wording. */
  onUse: (heading: string, instead: string) => void;
}) {
  return gone.map(({ heading, likely }) => (
    <Alert
      key={heading}
      className="below-8"
      type="warning"
      title={`Your files have no column “${heading}” any more, and this wording uses it.`}
      description={
        likely && !isFixed ? undefined : "Pick another slot in its place, or take a file in that has the column."
      }
      action={
        likely &&
        !isFixed && (
          <Button size="small" onClick={() => onUse(heading, likely)}>
            Use “{likely}”
          </Button>
        )
      }
    />
  ));
}
