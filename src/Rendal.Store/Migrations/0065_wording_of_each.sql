-- A round needs no wording picked for it: each parcel has that of its customer, else the book's for what goes. One that is picked goes
-- before both. Of rounds of which nothing was released, what was the book's wording was not picked; and as those with another one come
-- to other words now, they are made up anew.
alter table round alter wording_id drop not null;
update round r set wording_id = null from wording_assignment a
    where r.released_at is null and a.book_id = r.book_id and a.wording_id = r.wording_id and a.language = '' and a.purpose = case
        when r.choice ->> 'reminderLevels' is not null then 'reminder'
        else case r.choice ->> 'about' when 'invoices' then 'invoice-list' when 'confirmations' then 'confirmation' else 'statement' end end;
update round set to_be_prepared = true where released_at is null and prepared_at is not null;
