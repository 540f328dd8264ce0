-- Names of the trade, as the glossary has them.
alter table parcel rename column tries to attempts;
alter table parcel rename column try_from to next_attempt_at;
alter table delivery_attempt rename column ending to outcome;
alter table delivery_attempt rename column ending_at to end_of_data_at;
alter table delivery_attempt rename constraint delivery_attempt_ending_check to delivery_attempt_outcome_check;
alter table sign_in_count rename column tries to attempts;
