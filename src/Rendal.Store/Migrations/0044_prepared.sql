-- A round whose parcels are not what was chosen or decided since: making them up was stopped, or ended with its process.
alter table round add to_be_prepared boolean not null default true;
update round set to_be_prepared = false where prepared_at is not null;

-- The words that the log finds a parcel by are the same month after month: they are kept and indexed once for a customer.
create table addressee (
    book_id bigint not null references book,
    id bigint generated always as identity,
    -- The customer and the name.
    words text not null,
    primary key (book_id, id)
);

-- By their hash: words of some thousand letters have no place in an index.
create unique index addressee_once on addressee (book_id, md5(words));
insert into addressee (book_id, words) select distinct book_id, words from parcel_search;
create index addressee_words on addressee using gin (words gin_trgm_ops);
alter table parcel_search add addressee_id bigint;
update parcel_search s set addressee_id = a.id from addressee a where a.book_id = s.book_id and md5(a.words) = md5(s.words);
alter table parcel_search alter addressee_id set not null, drop column words;
alter table parcel_search add foreign key (book_id, addressee_id) references addressee;
create index parcel_search_addressee on parcel_search (book_id, addressee_id);
