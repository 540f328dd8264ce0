import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Input, Modal, Select } from "antd";
import { useState } from "react";

import { useBookId } from "../../shared/useBook";
import type { Round } from "./useRound";
import roundsStyles from "./rounds.module.css";
import { forgetChoice, saveChoice, savedChoices, applyChoice } from "./api";

/** A choice that was saved under a name is used here, or this one is saved to be used again. */
export function SavedChoices({ round, disabled }: { round: Round; disabled: boolean }) {
  const book = useBookId();
  const client = useQueryClient();
  const { message } = App.useApp();
  const [naming, setNaming] = useState<string>();
  const onError = (error: Error) => message.error(error.message);
  const saved = useQuery({
    queryKey: ["choices", book],
    queryFn: () => savedChoices(book),
  });
  const use = useMutation({
    mutationFn: (choice: number) => applyChoice(book, round.id, choice, round.revision),
    onSuccess: (changed) => client.setQueryData(["round", book, round.id], changed),
    onError,
  });
  const save = useMutation({
    mutationFn: (name: string) => saveChoice(book, round.id, { name }),
    onSuccess: (list) => {
      client.setQueryData(["choices", book], list);
      setNaming(undefined);
    },
    onError,
  });
  const forget = useMutation({
    mutationFn: (choice: number) => forgetChoice(book, choice),
    onSuccess: () => client.invalidateQueries({ queryKey: ["choices", book] }),
    onError,
  });
  const list = saved.data ?? [];
  const name = naming?.trim() ?? "";
  return (
    <>
      {list.length > 0 && (
        <Select
          size="small"
          aria-label="Use a saved choice"
          placeholder="use a saved choice"
          popupMatchSelectWidth={false}
          value={null}
          disabled={disabled}
          options={list.map((c) => ({ value: c.id, label: c.name }))}
          onChange={(choice: number | null) => choice !== null && use.mutate(choice)}
        />
      )}
      <button type="button" className="link" onClick={() => setNaming("")}>
        save these choices…
      </button>
      {naming !== undefined && (
        <Modal
          title="Save these choices"
          open
          okText={list.some((c) => c.name.toLowerCase() === name.toLowerCase()) ? "Replace" : "Save"}
          cancelText="Cancel"
          okButtonProps={{ disabled: !name }}
          confirmLoading={save.isPending}
          onCancel={() => setNaming(undefined)}
          onOk={() => save.mutate(name)}
        >
          <div className={roundsStyles.dialogLines}>
            <label>
              Name
              <Input
                autoFocus
                value={naming}
                onChange={(e) => setNaming(e.target.value)}
                onPressEnter={() => name && save.mutate(name)}
              />
            </label>
            {list.length > 0 && (
              <ul aria-label="Saved choices">
                {list.map((c) => (
                  <li key={c.id}>
                    {c.name}{" "}
                    <button type="button" className="link" onClick={() => forget.mutate(c.id)}>
                      forget<span className="visually-hidden"> {c.name}</span>
                    </button>
                  </li>
                ))}
              </ul>
            )}
            <p className="quiet">
              Everything at the left but the day for which the round holds; another round keeps its own.
            </p>
          </div>
        </Modal>
      )}
    </>
  );
}
