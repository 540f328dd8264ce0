-- An index takes 2,700 bytes at the most, and a file may have more in a cell or a heading: what is only compared is hashed, and
-- what is ordered by is ordered by its beginning.
drop index correction_once;
create unique index correction_once on correction (book_id, kind, md5(column_heading), md5(concerns), md5(was)) where taken_back_at is null;

create function headings_hash(headings text[]) returns text language sql immutable as $$ select md5(headings::text) $$;
alter table reading drop constraint reading_book_id_kind_headings_key;
create unique index reading_headings on reading (book_id, kind, headings_hash(headings));

drop index settled_by_hand_once;
create unique index settled_by_hand_once on settled_by_hand (book_id, md5(credit), md5(charge)) nulls not distinct where taken_back_at is null;

drop index customer_name, customer_address, customer_unit;
create index customer_name on customer (book_id, left(lower(name), 200), key);
create index customer_address on customer (book_id, left(coalesce(contacts -> 0 ->> 'address', ''), 200), key);
create index customer_unit on customer (book_id, left(unit, 200), key);
