import { useMutation, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";

import { useBookId } from "../../shared/useBook";
import { useGoOn } from "../../shared/useGoOn";
import { repeatParcel } from "./api";

/** Sends a parcel once more on purpose: makes a round of it alone, which is looked through and released like any other. */
export function Repeat({ parcel, customer }: { parcel: number; customer: string }) {
  const book = useBookId();
  const client = useQueryClient();
  const goOn = useGoOn();
  const { message } = App.useApp();
  const making = useMutation({
    mutationFn: () => repeatParcel(book, parcel),
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ["rounds", book] });
      await goOn(`/books/${book}/rounds/${made.round}`);
      message.info(`A round for ${customer} alone. It goes when you release it.`);
    },
    onError: (e) => void message.error(e.message),
  });
  return (
    <p className="only-below-8">
      <Button size="small" loading={making.isPending} onClick={() => making.mutate()}>
        Send again…
      </Button>
    </p>
  );
}
