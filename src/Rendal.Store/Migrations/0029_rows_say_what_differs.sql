-- A partition has the rows of one intake of one book. To write that in each of a million rows as it comes, and to send cells of
-- columns that the file does not have, takes the server a tenth of what the rows take it.
alter table ledger_row
    alter column reference set default '',
    alter column held set default '',
    alter column unit set default '',
    alter column email set default '',
    alter column extra set default '{}';

create or replace function make_ledger_rows(intake bigint) returns void language plpgsql security definer set search_path = public, pg_temp as $$
declare
    part text := 'ledger_row_' || intake;
    book bigint;
begin
    select i.book_id into strict book from intake i where i.id = make_ledger_rows.intake;
    execute format('create table %I (like ledger_row including constraints including defaults, check (intake_id = %s))', part, intake);
    execute format('alter table %I alter column book_id set default %s, alter column intake_id set default %s', part, book, intake);
    execute format('grant insert on %I to %I', part, session_user);
end $$;
