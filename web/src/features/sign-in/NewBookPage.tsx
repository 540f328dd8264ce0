import { useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "antd";
import { useNavigate } from "react-router";

import { Door } from "./Door";
import { bookOf, emptyFirm, FirmFields, type FirmText } from "./FirmFields";
import { makeBook } from "./api";

export function NewBookPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const make = async (text: FirmText) => {
    const book = await makeBook(bookOf(text));
    await client.invalidateQueries({ queryKey: ["session"] });
    await navigate(`/books/${book.id}/today`);
  };
  return (
    <Door<FirmText> title="A new book" initial={emptyFirm} onSend={make}>
      <FirmFields />
      <Form.Item>
        <Button type="primary" htmlType="submit">
          Create book
        </Button>{" "}
        <Button onClick={() => void navigate(-1)}>Back</Button>
      </Form.Item>
    </Door>
  );
}
