-- What the log finds a parcel by stands apart: it is written when the parcel is let go, and a parcel changes its state several
-- times on its way, each of which put all of its words into the index again.
drop index parcel_search;
drop index parcel_numbers;
create table parcel_search (
    book_id bigint not null,
    parcel_id bigint not null,
    -- The customer and the name.
    words text not null,
    -- Of the items on its statements.
    numbers text[] not null,
    -- Whose accounts are on them, and who gets them.
    accounts text[] not null,
    primary key (book_id, parcel_id),
    foreign key (book_id, parcel_id) references parcel
);
insert into parcel_search (book_id, parcel_id, words, numbers, accounts)
select book_id, id, customer || E'\n' || name, numbers, array(select customer union select a ->> 'key' from jsonb_array_elements(accounts) a) from parcel where card is not null;
alter table parcel drop column numbers;
create index parcel_search_words on parcel_search using gin (words gin_trgm_ops);
create index parcel_search_numbers on parcel_search using gin (numbers);
create index parcel_search_accounts on parcel_search using gin (accounts);

-- The list of a round is in the order of where its parcels stand; how many stand where, and which are on a page, is read from an index.
alter table parcel add standing text not null generated always as (case when state = 'prepared' and problem <> '' then 'needs-you' else state end) stored;

-- A seal is the hashes of its parts one after the other. What a parcel was when somebody looked at it is kept where it differs.
alter table parcel
    alter seen_seal type bytea using case when changed <> '{}' then decode((seen_seal -> 'parts' ->> 'figures') || (seen_seal -> 'parts' ->> 'recipients') || (seen_seal -> 'parts' ->> 'card') || (seen_seal -> 'parts' ->> 'reminder-level') || (seen_seal -> 'parts' ->> 'wording') || (seen_seal -> 'parts' ->> 'layout') || (seen_seal -> 'parts' ->> 'letterhead') || (seen_seal -> 'parts' ->> 'sender') || (seen_seal -> 'parts' ->> 'round'), 'hex') end,
    alter seal type bytea using decode((seal -> 'parts' ->> 'figures') || (seal -> 'parts' ->> 'recipients') || (seal -> 'parts' ->> 'card') || (seal -> 'parts' ->> 'reminder-level') || (seal -> 'parts' ->> 'wording') || (seal -> 'parts' ->> 'layout') || (seal -> 'parts' ->> 'letterhead') || (seal -> 'parts' ->> 'sender') || (seal -> 'parts' ->> 'round'), 'hex');
create index parcel_standing on parcel (book_id, round_id, standing, position) include (id);
drop index parcel_round;
create index parcel_changed on parcel (book_id, round_id) where changed <> '{}';

-- Who was written to of late is told from what went out of late.
create index dispatch_try_went on dispatch_try (book_id, ended_at) where ending in ('accepted', 'printed', 'exported');

-- The reminders on which it depends how far reminders have come, beside what is written down of each.
create index parcel_reminder_unsettled on parcel (book_id, state, id)
    where reminder_level is not null and state in ('released', 'sending', 'to-be-retried', 'unsure', 'refused', 'returned');
