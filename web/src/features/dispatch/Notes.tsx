import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input } from "antd";
import { useState } from "react";

import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import styles from "./Notes.module.css";
import { addParcelNote, parcelNotes } from "./api";

/** What people added to the record of a parcel. A note stays as it was written; what was wrong in it is put right by another. */
export function Notes({ parcel }: { parcel: number }) {
  const book = useBookId();
  const { moment } = useClock();
  const client = useQueryClient();
  const key = ["notes", book, parcel];
  const notes = useQuery({
    queryKey: key,
    queryFn: () => parcelNotes(book, parcel),
  });
  const [text, setText] = useState("");
  const adding = useMutation({
    mutationFn: () => addParcelNote(book, parcel, { text }),
    onSuccess: (now) => {
      client.setQueryData(key, now);
      setText("");
    },
  });
  return (
    <section className={styles.logNotes} aria-label="Notes">
      {notes.data?.map((n, i) => (
        <p key={i}>
          <span className="quiet">
            {moment(n.writtenAt)}, {n.by}:
          </span>{" "}
          {n.text}
        </p>
      ))}
      {adding.error && <Alert type="error" title={adding.error.message} />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          adding.mutate();
        }}
      >
        <Input
          size="small"
          aria-label="A note for the record"
          placeholder="A note for the record; it stays as written"
          maxLength={2000}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Button size="small" htmlType="submit" disabled={!text.trim()} loading={adding.isPending}>
          Add
        </Button>
      </form>
    </section>
  );
}
