-- A search of the log looks for a part of a text in several tables, and finds at once that it is not there. A text of one or
-- two letters has no trigram, and is looked for row by row.
create extension if not exists pg_trgm;
create function recipients_text(recipients text[]) returns text language sql immutable parallel safe as $$ select array_to_string(recipients, ' ') $$;
create index parcel_search on parcel using gin ((customer || E'\n' || name) gin_trgm_ops);
create index message_search on message using gin ((subject || E'\n' || message_id || E'\n' || recipients_text(recipients)) gin_trgm_ops);
create index paper_search on paper using gin ((name || E'\n' || recipients_text(lines)) gin_trgm_ops);
create index round_search on round using gin (name gin_trgm_ops);
-- What servers say who take a message is alike, and nobody looks for it.
create index try_search on dispatch_try using gin (answer gin_trgm_ops) where ending <> 'accepted';
create index parcel_customer on parcel (book_id, customer);

-- What points at a row is found when that row goes.
create index item_reminded_parcel on item_reminded (book_id, parcel_id);
create index customer_own_layout on customer (book_id, own_layout) where own_layout is not null;
create index customer_own_wording on customer (book_id, own_wording) where own_wording is not null;
create index layout_use_layout on layout_use (book_id, layout_id);
create index wording_use_wording on wording_use (book_id, wording_id);
create index parcel_layout on parcel (book_id, layout_id, layout_version) where layout_id is not null;
create index round_intake on round (book_id, intake_id);
create index round_layout on round (book_id, picked_layout) where picked_layout is not null;
create index round_repeat on round (book_id, repeat_of) where repeat_of is not null;
create index round_sender on round (book_id, sender_id);
create index round_wording on round (book_id, wording_id);
create index round_end_round on round_end (book_id, round_id);
create index row_correction_correction on row_correction (book_id, correction_id);
