-- What a customer owed by currency when a ledger was kept: to show it, no row of two dozen ledgers is looked for.
alter table ledger_customer add balances jsonb;
update ledger_customer c set balances = b.balances
from (
    select book_id, intake_id, customer, jsonb_agg(jsonb_build_object('currency', currency, 'balance', balance, 'items', items) order by currency) balances
    from (select book_id, intake_id, customer, currency, sum(open) balance, count(*) items from ledger_row group by book_id, intake_id, customer, currency) r
    group by book_id, intake_id, customer) b
where c.book_id = b.book_id and c.intake_id = b.intake_id and c.customer = b.customer;
alter table ledger_customer alter column balances set not null;

-- A round, a ledger or a book that is just written is in no statistics: where these list every other one, the server expects no row of
-- it, takes any index for as good as the right one, and goes through 50,000 parcels for one customer. Without statistics of these columns
-- it always expects some. To give the columns the type that they have takes away what statistics there are.
alter table parcel alter column round_id set statistics 0, alter column round_id type bigint;
alter table left_out alter column round_id set statistics 0, alter column round_id type bigint;
alter table round_account alter column round_id set statistics 0, alter column round_id type bigint;
alter table ledger_customer alter column intake_id set statistics 0, alter column intake_id type bigint;
alter table addressee alter column book_id set statistics 0, alter column book_id type bigint;
alter table row_set_aside alter column intake_id set statistics 0, alter column intake_id type bigint;

-- Most parcels have one sum. What those of a round come to is read from the index that the list is read from.
alter table parcel
    add sum_currency text generated always as (case when jsonb_array_length(sums) = 1 and sums -> 0 ->> 'alsoOn' is null then sums -> 0 ->> 'currency' end) stored,
    add sum_total numeric generated always as (case when jsonb_array_length(sums) = 1 and sums -> 0 ->> 'alsoOn' is null then (sums -> 0 ->> 'total')::numeric end) stored;
drop index parcel_standing;
create index parcel_standing on parcel (book_id, round_id, standing, position) include (id, sum_currency, sum_total);
create index parcel_several_sums on parcel (book_id, round_id) where sum_currency is null;

-- Which customers are under a head office, of which most firms have few.
create index customer_under_head_office on customer (book_id, key) include (head_office) where head_office <> '';

-- As with the other indexes of what the log finds a parcel by.
alter index addressee_words set (gin_pending_list_limit = 65536);
alter table addressee set (autovacuum_vacuum_insert_threshold = 1000, autovacuum_vacuum_insert_scale_factor = 0);

-- Rows of ledgers that no round was made from, and that are neither the ledger nor would be it again if some were undone. Their files
-- stay, and what they came to for each customer. Where somebody is reading rows in this moment they wait until the next time.
create function drop_spare_ledger_rows(book bigint, spared int, kept_before timestamptz) returns int language plpgsql security definer set search_path = public, pg_temp as $$
declare
    part text;
    dropped int := 0;
begin
    set local lock_timeout = '500ms';
    for part in
        select 'ledger_row_' || i.id from intake i
        where i.book_id = book and i.kind = 'ledger' and i.state in ('kept', 'undone') and i.kept_at < kept_before
            and to_regclass('ledger_row_' || i.id) is not null
            and not exists (select from round r where r.book_id = i.book_id and r.intake_id = i.id)
            and i.id not in (select k.id from intake k where k.book_id = book and k.kind = 'ledger' and k.state = 'kept' order by k.kept_at desc, k.id desc limit spared)
        order by i.id
    loop
        execute format('drop table %I', part);
        dropped := dropped + 1;
    end loop;
    return dropped;
exception when lock_not_available then
    return 0;
end $$;

revoke execute on function drop_spare_ledger_rows(bigint, int, timestamptz) from public;
