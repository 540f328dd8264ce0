-- The numbers of the items on a released parcel's statements, so that the log finds one without going through the rows of every
-- intake. Of what was released before, all items of its accounts.
alter table parcel add numbers text[] not null default '{}';
update parcel p set numbers = found.numbers
from (
    select k.book_id, k.id, array_agg(distinct l.number) as numbers
    from (
        select p.book_id, p.id, r.intake_id, a.key
        from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id
        cross join lateral (select p.customer as key union select a ->> 'key' from jsonb_array_elements(p.accounts) a) a
        where p.card is not null) k
    join ledger_row l on l.book_id = k.book_id and l.intake_id = k.intake_id and l.customer = k.key
    where l.number <> ''
    group by k.book_id, k.id) found
where p.book_id = found.book_id and p.id = found.id;
create index parcel_numbers on parcel using gin (numbers);
