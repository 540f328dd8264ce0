-- Seals have another form now, in which what says nothing is left away. What is not released is prepared anew; what is released and has not
-- left is compared by its sums, as what was released before there were seals. Where a change of a parcel had not been looked at yet, which
-- one it was is not known any more: its round counts as behind everything, so that all of it is marked and looked through again.
update round r set to_be_prepared = true, prepared_at_change = case
        when exists (select from parcel p where p.book_id = r.book_id and p.round_id = r.id and p.changed <> '{}') then -1
        else prepared_at_change end
where released_at is null and prepared_at is not null;
update parcel set seal = null, seen_seal = null, changed = '{}' where state in ('prepared', 'held');
update parcel set seal = null where state in ('released', 'sending', 'to-be-retried', 'unsure');
