-- A round needs no wording picked for it: each parcel has that of its customer, else the book's for what goes. One that is picked goes
-- before both.
alter table round alter wording_id drop not null;

-- Every round had one. What it began with, the book's for what goes or where none was said the book's first, nobody picked; in a copy, a
-- repeat or the rest of an old round it must not go before the card, the level and the language either.
update round r set wording_id = null
    where r.wording_id = coalesce(
        (select a.wording_id from wording_assignment a where a.book_id = r.book_id and a.language = '' and a.purpose = case
            when r.choice ->> 'reminderLevels' is not null then 'reminder'
            when r.choice ->> 'about' = 'invoices' then 'invoice-list'
            when r.choice ->> 'about' = 'confirmations' then 'confirmation'
            else 'statement' end),
        (select min(w.id) from wording w where w.book_id = r.book_id));

-- Rounds of which nothing was released come to other words where another one was picked: they are made up anew, and tell what changed.
update round set to_be_prepared = true where released_at is null and prepared_at is not null;
