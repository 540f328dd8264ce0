-- Seals have another form now, in which what says nothing is left away. What is not released is prepared anew, without a mark; what is
-- released and has not left is compared by its sums, as what was released before there were seals.
update parcel p set seal = null, seen_seal = null, changed = '{}' where state in ('prepared', 'held');
update parcel p set seal = null where state in ('released', 'sending', 'to-be-retried', 'unsure');
update round set to_be_prepared = true where released_at is null and prepared_at is not null;
