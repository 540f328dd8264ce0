import { App, Button } from "antd";
import { useSearchParams } from "react-router";
import { FileButton } from "../../shared/FileButton";
import { Uses } from "../../shared/Uses";
import { Waiting } from "../../shared/Waiting";
import { BringLetter } from "./BringLetter";
import { LayoutEditor } from "./LayoutEditor";
import { useLayout, useLayoutActions, useLayouts, type Layout, type LayoutList, type StoredLayout } from "./useLayouts";
import { NewLayout } from "./NewLayout";
import styles from "./LayoutsPage.module.css";

/** The layouts of the book: which is used for what, and the one in view beside its document. */
export function LayoutsPage() {
  const [parameters, setParameters] = useSearchParams();
  const list = useLayouts();
  const wanted = Number(parameters.get("layout") ?? NaN);
  const show = (id: number) => setParameters({ part: "layouts", layout: String(id) });
  return (
    <Waiting query={list}>
      {(all) => {
        const usual = all.uses.find((u) => u.purpose === "statement")?.id ?? 0;
        const id = Number.isNaN(wanted) ? usual : wanted;
        return <Shown key={id} id={id} list={all} onShow={show} />;
      }}
    </Waiting>
  );
}

function Shown({ id, list, onShow }: { id: number; list: LayoutList; onShow: (id: number) => void }) {
  const stored = useLayout(id);
  const { use } = useLayoutActions();
  return (
    <div className={styles.layouts}>
      <nav className="side-list" aria-label="Layouts">
        {[{ id: 0, name: `${list.builtIn.name} (built in)` }, ...list.layouts].map((l) => (
          <button key={l.id} type="button" aria-current={l.id === id} onClick={() => onShow(l.id)}>
            {l.name}
          </button>
        ))}
        <NewLayout onMade={onShow} />
        {id === 0 ? (
          <p className="quiet uses">It is used wherever no other is.</p>
        ) : (
          <Uses id={id} list={list} use={use} />
        )}
        <Waiting query={stored}>{(s) => <Files stored={s} onMade={onShow} />}</Waiting>
      </nav>
      <Waiting query={stored}>
        {(s) => <LayoutEditor key={`${s.id} ${s.version}`} stored={s} list={list} onMade={onShow} />}
      </Waiting>
    </div>
  );
}

/** Copying a layout, and carrying it from one book to another as a file. */
function Files({ stored, onMade }: { stored: StoredLayout; onMade: (id: number) => void }) {
  const { message, modal } = App.useApp();
  const { add, takeAway } = useLayoutActions();
  const goAway = () =>
    modal.confirm({
      title: `Delete ${stored.layout.name}?`,
      content: "It is offered no more. What was sent by it stays as it was.",
      okText: "Delete layout",
      onOk: () =>
        takeAway.mutate(stored.id, { onSuccess: () => onMade(0), onError: (e) => void message.error(e.message, 8) }),
    });
  const make = (layout: Layout) =>
    add.mutate(layout, { onSuccess: (made) => onMade(made.id), onError: (e) => void message.error(e.message) });
  const take = async (file: File) => {
    try {
      make(JSON.parse(await file.text()) as Layout);
    } catch {
      message.error(`${file.name} is not a layout: it is no JSON.`);
    }
  };
  const save = () => {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([JSON.stringify(stored.layout, null, 2)], { type: "application/json" }));
    link.download = `${stored.layout.name} layout.json`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <div className={styles.layoutFiles}>
      <Button
        size="small"
        loading={add.isPending}
        onClick={() => make({ ...stored.layout, name: `${stored.layout.name}, a copy` })}
      >
        Copy
      </Button>
      <Button size="small" onClick={save}>
        Download
      </Button>
      <FileButton label="Layout file" accept="application/json,.json" onTake={take}>
        Take from a file…
      </FileButton>
      <BringLetter label="Upload letter (DOCX)…" onTake={make} />
      {stored.id !== 0 && (
        <Button size="small" loading={takeAway.isPending} onClick={goAway}>
          Delete…
        </Button>
      )}
    </div>
  );
}
