import { Button, Input, Select } from "antd";
import { usualChoices, type Choice } from "./choiceWords";
import { slotOptions, type SlotView } from "./slotOptions";
import styles from "./ChoiceFields.module.css";

/** By which value a word is chosen, and the word for each. */
export function ChoiceFields({
  choice,
  slots,
  isFixed,
  onChange,
  onRemove,
}: {
  choice: Choice;
  slots: SlotView[];
  isFixed: boolean;
  onChange: (changed: Partial<Choice>) => void;
  onRemove: () => void;
}) {
  const { by, words, orElse } = choice;
  const set = (at: number, pair: [string, string]) => onChange({ words: words.map((w, i) => (i === at ? pair : w)) });
  const example = slots.find((s) => s.name === by)?.example;
  return (
    <div className={styles.choice}>
      {by === "" && (
        <p className="above-0">
          {usualChoices.map(({ label, choice: usual }) => (
            <Button key={label} size="small" type="link" onClick={() => onChange(usual)}>
              {label}
            </Button>
          ))}
        </p>
      )}
      <label>
        By
        <Select
          className="whole-width"
          aria-label="Choose the word by"
          disabled={isFixed}
          showSearch={{ optionFilterProp: "label" }}
          value={by || undefined}
          options={slotOptions(slots.filter((s) => !s.isHtml))}
          onChange={(picked: string) => onChange({ by: picked, words: words.length === 0 ? [["", ""]] : words })}
        />
      </label>
      {example && <p className="quiet">Of the customer in view it is “{example}”.</p>}
      {words.map(([value, word], i) => (
        <div key={i} className={styles.pair}>
          is
          <Input
            size="small"
            aria-label={`Value ${i + 1}`}
            value={value}
            disabled={isFixed}
            onChange={(e) => set(i, [e.target.value, word])}
          />
          word
          <Input
            size="small"
            aria-label={`Word ${i + 1}`}
            value={word}
            disabled={isFixed}
            onChange={(e) => set(i, [value, e.target.value])}
          />
          {!isFixed && words.length > 1 && (
            <button
              type="button"
              className="link"
              aria-label={`Remove value ${i + 1}`}
              onClick={() => onChange({ words: words.filter((_, at) => at !== i) })}
            >
              ×
            </button>
          )}
        </div>
      ))}
      {!isFixed && by !== "" && (
        <button type="button" className="link" onClick={() => onChange({ words: [...words, ["", ""]] })}>
          One more value
        </button>
      )}
      <label>
        Otherwise
        <Input
          size="small"
          aria-label="Word otherwise"
          value={orElse}
          disabled={isFixed}
          placeholder="nothing"
          onChange={(e) => onChange({ orElse: e.target.value })}
        />
      </label>
      {!isFixed && (
        <button type="button" className="link above-8" onClick={onRemove}>
          Remove the choice
        </button>
      )}
    </div>
  );
}
