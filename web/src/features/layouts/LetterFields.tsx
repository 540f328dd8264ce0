import { Button } from "antd";
import { BringLetter } from "./BringLetter";
import { whenWords } from "./partWords";
import type { Layout } from "./useLayouts";

type Letter = NonNullable<Layout["letter"]>;

/** A letter that was brought along: the slots found in it, and a newer one in its place. */
export function LetterFields({ letter, onChange }: { letter: Letter; onChange: (letter: Letter) => void }) {
  const save = () => {
    const bytes = Uint8Array.from(atob(letter.bytes), (c) => c.charCodeAt(0));
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([bytes]));
    link.download = letter.fileName;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <section className="layout-fields" aria-label="Letter">
      <div className="layout-line">
        <strong>{letter.fileName}</strong>
        <Button size="small" onClick={save}>
          Save the file
        </Button>
        <BringLetter label="Bring a newer one…" onTake={(brought) => brought.letter && onChange(brought.letter)} />
      </div>
      <table className="layout-slots">
        <thead>
          <tr>
            <th>Slot in the letter</th>
            <th>Or else</th>
            <th>Stands</th>
          </tr>
        </thead>
        <tbody>
          {letter.slots.map((slot, i) => (
            <tr key={i}>
              <td>{`{{ ${slot.name} }}`}</td>
              <td>{slot.orElse}</td>
              <td>{slot.when.map((w) => whenWords[w] ?? w).join(", ") || "always"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {letter.slots.length === 0 && (
        <p className="quiet">
          There is no slot in it: every customer gets the same. Write slots as {"{{ customer.name }}"}.
        </p>
      )}
    </section>
  );
}
