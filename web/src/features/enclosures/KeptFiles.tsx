import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useBookId } from "../../shared/useBook";
import { deleteEnclosures, enclosuresOf, fileAddress } from "./api";
import { GiveIn } from "./GiveIn";
import { useGiveIn } from "./useGiveIn";
import styles from "./KeptFiles.module.css";

/** The files that go with every message to a customer. */
export function KeptFiles({ customer }: { customer: string }) {
  const book = useBookId();
  const client = useQueryClient();
  const giving = useGiveIn("customer", customer);
  const files = useQuery({
    queryKey: ["enclosures", book, "customer", customer],
    queryFn: () => enclosuresOf(book, customer),
  });
  const deleting = useMutation({
    mutationFn: (file: number) => deleteEnclosures(book, [file]),
    onSuccess: () => client.invalidateQueries({ queryKey: ["enclosures", book] }),
  });
  return (
    <section className={styles.kept} aria-label="Files for every message">
      <h3>Files for every message</h3>
      {(files.data?.length ?? 0) > 0 && (
        <ul>
          {files.data?.map((f) => (
            <li key={f.id}>
              <a href={fileAddress(book, f.id)} target="_blank" rel="noreferrer">
                {f.name}
              </a>{" "}
              <button type="button" className="link" onClick={() => deleting.mutate(f.id)}>
                Delete<span className="visually-hidden"> {f.name}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <GiveIn giving={giving} />
    </section>
  );
}
