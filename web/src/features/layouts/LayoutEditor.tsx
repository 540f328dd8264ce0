import { Alert, App, Button, Checkbox, Input, InputNumber, Select } from "antd";
import { useState } from "react";
import { useClock } from "../../shared/useClock";
import { CustomerInView } from "../wordings/slotExamples";
import { SlotText } from "../wordings/SlotText";
import { LayoutPreview } from "./LayoutPreview";
import { LetterFields } from "./LetterFields";
import { OrderButtons } from "./OrderButtons";
import { Millimetres, PartFields } from "./PartFields";
import { facesWords, formWords, newPart, partWords } from "./partWords";
import { useDraft, type DraftActions } from "./useDraft";
import { useLayoutActions, useSamples, type LayoutList, type PartName, type StoredLayout } from "./useLayouts";
import { Versions } from "./Versions";
import layoutsStyles from "./layouts.module.css";
import styles from "./LayoutEditor.module.css";

/** A layout beside the very document that it makes. */
export function LayoutEditor({
  stored,
  list,
  onMade,
}: {
  stored: StoredLayout;
  list: LayoutList;
  onMade: (id: number) => void;
}) {
  const { message } = App.useApp();
  const { moment } = useClock();
  const draft = useDraft(stored.layout);
  const [picked, setPicked] = useState<string>();
  const longest = useSamples().data?.[0];
  const customer = picked ?? longest?.customer;
  const { add, save } = useLayoutActions();
  const isBuiltIn = stored.id === 0;
  const problem = add.error ?? save.error;
  const keep = () => {
    if (isBuiltIn) {
      add.mutate(draft.layout, { onSuccess: (made) => onMade(made.id) });
    } else {
      save.mutate(
        { id: stored.id, version: stored.version, layout: draft.layout },
        { onSuccess: () => void message.success("Rounds that are prepared from now on are set by it.") },
      );
    }
  };
  return (
    <CustomerInView value={customer ?? null}>
      <div className={styles.layoutEditor}>
        <div>
          <div className={layoutsStyles.layoutLine}>
            <Button
              type="primary"
              disabled={!draft.isChanged && !isBuiltIn}
              loading={add.isPending || save.isPending}
              onClick={keep}
            >
              {isBuiltIn ? "Save as a copy" : "Save layout"}
            </Button>
            <Button size="small" disabled={!draft.undo} onClick={draft.undo}>
              Undo
            </Button>
            <Button size="small" disabled={!draft.redo} onClick={draft.redo}>
              Redo
            </Button>
            {!isBuiltIn && <Versions id={stored.id} current={stored.version} onTake={draft.replace} />}
          </div>
          <p className={`${styles.said} quiet`} role="status">
            {draft.isChanged
              ? "changed, not in use yet"
              : isBuiltIn
                ? "comes with Rendal; change it and keep it as your own"
                : `version ${stored.version}, by ${stored.madeBy}, ${moment(stored.madeAt)}`}
          </p>
          {problem && <Alert className="below-8" type="error" title={problem.message} />}
          <Sheet draft={draft} />
          {draft.layout.letter ? (
            <LetterFields letter={draft.layout.letter} onChange={(letter) => draft.set({ letter })} />
          ) : (
            <Parts draft={draft} list={list} />
          )}
        </div>
        <LayoutPreview layout={draft.layout} customer={customer} onPick={setPicked} />
      </div>
    </CustomerInView>
  );
}

/** The sheet of paper, and what holds for all of it. */
function Sheet({ draft }: { draft: DraftActions }) {
  const { layout } = draft;
  return (
    <details className={layoutsStyles.layoutPart}>
      <summary>Sheet</summary>
      <div className={layoutsStyles.layoutFields} key={draft.turn}>
        <label className={layoutsStyles.layoutLine}>
          Name
          <Input
            className="grow"
            size="small"
            value={layout.name}
            onChange={(e) => draft.set({ name: e.target.value })}
          />
        </label>
        {layout.letter === null && <Look draft={draft} />}
        <div className={layoutsStyles.layoutLine}>
          <span id="enclosed-as">Enclosed as</span>
          <Checkbox.Group
            aria-labelledby="enclosed-as"
            value={layout.forms}
            options={formWords.filter((f) => f.value !== "docx" || layout.letter !== null)}
            onChange={(forms) => draft.set({ forms })}
          />
        </div>
        <SlotText
          label="Name of the file"
          html={layout.fileName}
          kind="line"
          isFixed={false}
          onChange={(fileName) => draft.set({ fileName })}
        />
        <p className="quiet">Empty, it is the account, what it is and the day: AB01 statement 2026-10-31.</p>
      </div>
    </details>
  );
}

/** How a sheet looks whose parts are ours; a letter that was brought along has its own. */
function Look({ draft }: { draft: DraftActions }) {
  const { layout } = draft;
  const margin = (side: keyof typeof layout.margins, label: string) => (
    <Millimetres
      label={label}
      value={layout.margins[side]}
      onDone={(width) => draft.set({ margins: { ...layout.margins, [side]: width } })}
    />
  );
  return (
    <>
      <div className={layoutsStyles.layoutLine}>
        <label className={layoutsStyles.layoutMeasure}>
          Paper
          <Select
            size="small"
            aria-label="Paper"
            value={layout.paper}
            options={[
              { value: "a4", label: "A4" },
              { value: "letter", label: "Letter" },
            ]}
            onChange={(paper) => draft.set({ paper })}
          />
        </label>
        <label className={layoutsStyles.layoutMeasure}>
          Colour
          <input type="color" value={layout.accent} onChange={(e) => draft.set({ accent: e.target.value })} />
        </label>
        <label className={layoutsStyles.layoutMeasure}>
          Text
          <InputNumber
            className="width-84"
            size="small"
            min={7}
            max={12}
            step={0.5}
            suffix="pt"
            value={layout.textSize}
            onChange={(textSize) => textSize !== null && draft.set({ textSize })}
          />
        </label>
      </div>
      <label className={layoutsStyles.layoutLine}>
        Faces
        <Select
          className="grow"
          size="small"
          aria-label="Faces"
          popupMatchSelectWidth={false}
          value={layout.faces}
          options={Object.entries(facesWords).map(([value, label]) => ({ value, label }))}
          onChange={(faces) => draft.set({ faces })}
        />
      </label>
      <div className={layoutsStyles.layoutLine} role="group" aria-label="Margins">
        {margin("left", "Left")}
        {margin("top", "Top")}
        {margin("right", "Right")}
        {margin("bottom", "Bottom")}
      </div>
      <label className={layoutsStyles.layoutLine}>
        Foot of each page
        <Input
          className="grow"
          size="small"
          placeholder="the firm’s name"
          value={layout.footer}
          onChange={(e) => draft.set({ footer: e.target.value })}
        />
      </label>
    </>
  );
}

function Parts({ draft, list }: { draft: DraftActions; list: LayoutList }) {
  const { layout, keys, turn } = draft;
  const [open, setOpen] = useState<number>();
  const missing = (Object.keys(partWords) as PartName[]).filter(
    (name) => name === "text" || !layout.parts.some((p) => p.part === name),
  );
  return (
    <>
      <ol className={styles.layoutParts} aria-label="Parts">
        {layout.parts.map((part, i) => {
          const name = partWords[part.part];
          const key = keys[i] ?? i;
          return (
            <li key={key} className={layoutsStyles.layoutPart}>
              <div className={styles.layoutPartHead}>
                <button
                  type="button"
                  className={layoutsStyles.layoutPartName}
                  aria-expanded={open === key}
                  onClick={() => setOpen(open === key ? undefined : key)}
                >
                  {name}
                </button>
                <OrderButtons
                  at={i}
                  count={layout.parts.length}
                  names={{ up: `${name} up`, down: `${name} down`, away: `${name} away` }}
                  onMove={(by) => draft.movePart(i, by)}
                  onGo={() => draft.removePart(i)}
                />
              </div>
              {open === key && (
                <div className={layoutsStyles.layoutFields} key={turn}>
                  <PartFields part={part} list={list} onChange={(p) => draft.setPart(i, p)} />
                </div>
              )}
            </li>
          );
        })}
      </ol>
      <Select
        className="width-160"
        size="small"
        aria-label="Add a part"
        placeholder="Add a part"
        popupMatchSelectWidth={false}
        value={null}
        options={missing.map((name) => ({ value: name, label: partWords[name] }))}
        onChange={(name: PartName | null) => name && draft.addPart(newPart[name])}
      />
    </>
  );
}
