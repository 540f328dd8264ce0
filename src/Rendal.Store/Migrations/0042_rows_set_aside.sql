-- The rows that an intake set aside come by the hundred thousand and are only ever written with it, like the ledger's own
-- rows. What they belong to was looked up again for each of them, which took longer than to read the file.
alter table row_set_aside drop constraint row_set_aside_book_id_intake_id_fkey;
