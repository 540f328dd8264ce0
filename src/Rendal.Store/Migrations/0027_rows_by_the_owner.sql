-- Rendal works as a role that owns no table, so that it cannot take the record of what went out away. The table for the rows
-- of an intake is made, and put in its place, as the owner; whoever asked for it may fill it.
create or replace function make_ledger_rows(intake bigint) returns void language plpgsql security definer set search_path = public, pg_temp as $$
begin
    execute format('create table %I (like ledger_row including constraints, check (intake_id = %s))', 'ledger_row_' || intake, intake);
    execute format('grant insert on %I to %I', 'ledger_row_' || intake, session_user);
end $$;

alter function place_ledger_rows(bigint) security definer set search_path = public, pg_temp;

revoke execute on function make_ledger_rows(bigint), place_ledger_rows(bigint) from public;
