import { Button, Flex, Form, InputNumber, Select } from "antd";
import { useWordings } from "../wordings/useWordings";
import styles from "./LevelFields.module.css";

const mostLevels = 9;

/** The reminder levels: when each is due, and in which words. */
export function LevelFields() {
  const wordings = useWordings();
  return (
    <Form.List name="levels">
      {(fields, { add, remove }) => (
        <>
          <table className={`${styles.levels} ledger`} aria-label="Reminder levels">
            <thead>
              <tr>
                <th scope="col">Level</th>
                <th scope="col">Days past due</th>
                <th scope="col">Days after the one before</th>
                <th scope="col">Words</th>
              </tr>
            </thead>
            <tbody>
              {fields.map((field, i) => (
                <tr key={field.key}>
                  <th scope="row">{i + 1}</th>
                  <td>
                    <Form.Item noStyle name={[field.name, "days"]}>
                      <InputNumber aria-label={`Level ${i + 1}, days past due`} min={1} max={3650} precision={0} />
                    </Form.Item>
                  </td>
                  <td>
                    {i === 0 && fields.length > 1 ? (
                      <span className="quiet">the first</span>
                    ) : (
                      <Form.Item noStyle name={[field.name, "gap"]}>
                        <InputNumber
                          aria-label={`Level ${i + 1}, days after the one before`}
                          min={0}
                          max={3650}
                          precision={0}
                        />
                      </Form.Item>
                    )}
                  </td>
                  <td>
                    <Form.Item noStyle name={[field.name, "wording"]}>
                      <Select
                        className="width-190"
                        aria-label={`Level ${i + 1}, words`}
                        allowClear
                        placeholder="those of the round"
                        loading={wordings.isPending}
                        popupMatchSelectWidth={false}
                        options={(wordings.data?.wordings ?? []).map((w) => ({ value: w.id, label: w.name }))}
                      />
                    </Form.Item>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Flex gap={8} className={styles.acts}>
            <Button
              size="small"
              disabled={fields.length >= mostLevels}
              onClick={() => add({ days: null, gap: 14, wording: null })}
            >
              Add a level
            </Button>
            <Button size="small" disabled={fields.length <= 1} onClick={() => remove(fields.length - 1)}>
              Remove last level
            </Button>
          </Flex>
        </>
      )}
    </Form.List>
  );
}
