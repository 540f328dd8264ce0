-- The customers of an intake are written in the transaction that has found and locked it, and an intake is never deleted;
-- to look it up again for each of fifty thousand customers takes as long as to write them.
alter table ledger_customer drop constraint ledger_customer_book_id_intake_id_fkey;
