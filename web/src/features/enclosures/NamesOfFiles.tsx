import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input, Modal } from "antd";
import { useState } from "react";
import { useBookId } from "../../shared/useBook";
import { enclosureSettings, settleEnclosures } from "./api";
import styles from "./NamesOfFiles.module.css";

/** Where in names of files the number stands, as it was found out, and which kinds of files are taken; both can be changed. */
export function NamesOfFiles() {
  const book = useBookId();
  const client = useQueryClient();
  const [isOpen, setOpen] = useState(false);
  const [pattern, setPattern] = useState("");
  const [kinds, setKinds] = useState("");
  const settings = useQuery({
    queryKey: ["enclosures", book, "settings"],
    queryFn: () => enclosureSettings(book),
  });
  const saving = useMutation({
    mutationFn: () => settleEnclosures(book, { pattern, kinds: kinds.split(/[\s,;]+/).filter(Boolean) }),
    onSuccess: () => {
      setOpen(false);
      void client.invalidateQueries({ queryKey: ["enclosures", book] });
    },
  });
  const s = settings.data;
  const used = s && (s.pattern || s.proposed);
  return (
    <p className={styles.line}>
      {used ? (
        <>
          The names are read as <code>{used}</code>
          {!s.pattern && <span className="quiet">, as most of them are written.</span>}
        </>
      ) : (
        <span className="quiet">Files are found by the number in their name, or else in the text of the PDF.</span>
      )}{" "}
      <button
        type="button"
        className="link"
        onClick={() => {
          setPattern(s?.pattern ?? "");
          setKinds(s?.kinds.join(" ") ?? "");
          setOpen(true);
        }}
      >
        Change…
      </button>
      <Modal
        title="Names and kinds of files"
        open={isOpen}
        onCancel={() => setOpen(false)}
        footer={null}
        destroyOnHidden
      >
        <form
          className={styles.form}
          onSubmit={(e) => {
            e.preventDefault();
            saving.mutate();
          }}
        >
          <label>
            Pattern of names
            <Input
              aria-label="Pattern of names"
              placeholder={s?.proposed || "Invoice {number} *"}
              value={pattern}
              onChange={(e) => setPattern(e.target.value)}
            />
          </label>
          <p className="quiet">
            <code>{"{number}"}</code> is the number, a star any text. Empty: by what most names speak for. It holds for
            files that are added from now on.
          </p>
          <label>
            Also allowed, beside {s?.usual.join(" ")}
            <Input
              aria-label="Also allowed"
              placeholder=".p7m"
              value={kinds}
              onChange={(e) => setKinds(e.target.value)}
            />
          </label>
          {saving.error && <Alert type="error" title={saving.error.message} />}
          <Button type="primary" htmlType="submit" loading={saving.isPending}>
            Save
          </Button>
        </form>
      </Modal>
    </p>
  );
}
