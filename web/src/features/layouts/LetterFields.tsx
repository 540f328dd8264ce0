import { Button } from "antd";
import { BringLetter } from "./BringLetter";
import { whenWords } from "../../shared/whenWords";
import { useSlots } from "../wordings/slotExamples";
import { useLayouts, type Layout } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";
import styles from "./LetterFields.module.css";

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
    <section className={layoutsStyles.layoutFields} aria-label="Letter">
      <div className={layoutsStyles.layoutLine}>
        <strong>{letter.fileName}</strong>
        <Button size="small" onClick={save}>
          Download file
        </Button>
        <BringLetter label="Upload new version…" onTake={(brought) => brought.letter && onChange(brought.letter)} />
      </div>
      <table className={styles.layoutSlots}>
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
      <Writable />
      {letter.slots.length === 0 && (
        <p className="quiet">
          There is no slot in it: every customer gets the same. Write slots as {"{{ customer.name }}"}.
        </p>
      )}
    </section>
  );
}

/** Everything that can be written into a letter, with what it holds of a customer. */
function Writable() {
  const list = useLayouts();
  const slots = useSlots();
  const fields = [
    ...(list.data?.fields ?? []),
    ...(list.data?.columns ?? []).map((field) => ({ field, heading: field })),
  ];
  return (
    <details className={layoutsStyles.layoutPart}>
      <summary>What can be written</summary>
      <table className={styles.layoutSlots}>
        <tbody>
          {slots.data
            ?.filter((slot) => !slot.isHtml)
            .map((slot) => (
              <tr key={slot.name}>
                <td>{`{{ ${slot.name} }}`}</td>
                <td>{slot.says}</td>
                <td>{slot.example}</td>
              </tr>
            ))}
          {fields.map((field) => (
            <tr key={field.field}>
              <td>{`{{ item.${field.field} }}`}</td>
              <td colSpan={2}>In a row of a table, which then stands once for each item: {field.heading}.</td>
            </tr>
          ))}
          <tr>
            <td>{"{{ customer.contact or else Accounts }}"}</td>
            <td colSpan={2}>With words that stand there where it is empty.</td>
          </tr>
          <tr>
            <td>{"{{ if overdue }} … {{ end }}"}</td>
            <td colSpan={2}>
              Words that stand there only where something is past due; also not overdue, reminder, no reminder, one
              item, several items. Within a paragraph, or around paragraphs, each mark then in a paragraph of its own.
            </td>
          </tr>
        </tbody>
      </table>
    </details>
  );
}
