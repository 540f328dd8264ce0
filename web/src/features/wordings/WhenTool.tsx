import { useEditorState, type Editor } from "@tiptap/react";
import { App, Form, Input, Modal, Select } from "antd";
import { useState } from "react";
import { whenWords } from "../../shared/whenWords";
import {
  comparisonWords,
  conditionsAt,
  deepest,
  named,
  putCondition,
  sentence,
  wantsText,
  type Condition,
} from "./conditions";
import { labelOf, slotOptions, type SlotView } from "./slotOptions";

const byValue = "by-value";

/** Under which conditions the chosen words stand; where none are chosen, the whole paragraph. */
export function WhenTool({ editor, label, slots }: { editor: Editor; label: string; slots: SlotView[] }) {
  const { message } = App.useApp();
  const [asked, setAsked] = useState<Condition>();
  const now = useEditorState({ editor, selector: (s) => conditionsAt(s.editor.state), equalityFn: sameConditions });
  const put = (condition: Condition | null) => {
    const tr = putCondition(editor.state, condition);
    if (tr) {
      editor.view.dispatch(tr);
    } else {
      message.warning(`Conditions stand in each other ${deepest} deep at the most. Take one of them off first.`, 8);
    }
    editor.commands.focus();
  };
  const inner = now.at(-1);
  return (
    <>
      <Select
        className="width-160"
        size="small"
        aria-label={`When words of the ${label.toLowerCase()} stand`}
        popupMatchSelectWidth={false}
        value={now.length === 0 ? "always" : inner?.when === "slot" ? byValue : inner?.when}
        labelRender={() => (
          <span title={now.length === 0 ? "" : sentence(now, labelOf(slots))}>
            stands {now.length === 0 ? "always" : sentence(now, labelOf(slots))}
          </span>
        )}
        options={[
          ...Object.entries(whenWords).map(([value, words]) => ({ value, label: words, title: words })),
          { value: byValue, label: "by a value or a column…", title: "by a value or a column" },
        ]}
        onSelect={(picked: string) =>
          picked === byValue
            ? setAsked(inner?.when === "slot" ? inner : { when: "slot", of: "", is: "is", with: "" })
            : put(picked === "always" ? null : named(picked))
        }
      />
      {asked && (
        <ByValue
          condition={asked}
          slots={slots}
          onClose={() => setAsked(undefined)}
          onPut={(condition) => {
            setAsked(undefined);
            put(condition);
          }}
        />
      )}
    </>
  );
}

const sameConditions = (a: Condition[], b: Condition[] | null) => JSON.stringify(a) === JSON.stringify(b);

/** Picks a condition on the value of a slot. */
function ByValue({
  condition,
  slots,
  onClose,
  onPut,
}: {
  condition: Condition;
  slots: SlotView[];
  onClose: () => void;
  onPut: (condition: Condition) => void;
}) {
  const [draft, setDraft] = useState(condition);
  const example = slots.find((s) => s.name === draft.of)?.example;
  const isWhole = draft.of !== "" && (!wantsText(draft.is) || draft.with.trim() !== "");
  return (
    <Modal
      open
      title="These words stand where"
      okText="Put the condition"
      okButtonProps={{ disabled: !isWhole }}
      onCancel={onClose}
      onOk={() => onPut(draft)}
    >
      <Form layout="vertical" onFinish={() => isWhole && onPut(draft)}>
        <Form.Item label="Value or column">
          <Select
            aria-label="Value or column"
            autoFocus
            showSearch={{ optionFilterProp: "label" }}
            value={draft.of || undefined}
            options={slotOptions(slots.filter((s) => !s.isHtml))}
            onChange={(of: string) => setDraft({ ...draft, of })}
          />
        </Form.Item>
        <Form.Item label="What is asked">
          <Select
            aria-label="What is asked"
            value={draft.is}
            options={Object.entries(comparisonWords).map(([value, words]) => ({ value, label: words }))}
            onChange={(is: string) => setDraft({ ...draft, is, with: wantsText(is) ? draft.with : "" })}
          />
        </Form.Item>
        {wantsText(draft.is) && (
          <Form.Item
            label="Text"
            extra={example && <span className="quiet">Of the customer in view it is “{example}”.</span>}
          >
            <Input
              aria-label="Text to compare with"
              value={draft.with}
              onChange={(e) => setDraft({ ...draft, with: e.target.value })}
            />
          </Form.Item>
        )}
        <button type="submit" hidden />
      </Form>
      <p className="quiet" role="status">
        {isWhole ? `The words stand ${sentence([draft], labelOf(slots))}.` : "Pick a value."}
      </p>
    </Modal>
  );
}
