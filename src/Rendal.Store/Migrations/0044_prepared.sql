-- A round whose parcels are not what was chosen or decided since: making them up was stopped, or ended with its process.
alter table round
    add to_be_prepared boolean not null default true,
    -- The customers about whom something was decided since, where nothing else is another.
    add awaiting text[] not null default '{}';
update round set to_be_prepared = false where prepared_at is not null;

-- The business units of a ledger, which every look at a round of it asks for.
alter table intake add units text[] not null default '{}';
update intake i set units = array(select distinct unit from ledger_row r where r.book_id = i.book_id and r.intake_id = i.id and unit <> '' order by unit) where i.kind = 'ledger';

-- What the accounts of a round come to: one row for each, so that one can be put in place of another. Rounds are prepared anew with them.
drop table round_account;
create table round_account (
    book_id bigint not null,
    round_id bigint not null,
    customer text not null,
    currency char(3) not null,
    total numeric not null,
    oldest int not null,
    rows int not null,
    empty boolean not null,
    -- The reminder that is next, and whether it is due; null in a round of statements.
    level smallint,
    due boolean,
    primary key (book_id, round_id, customer, currency),
    foreign key (book_id, round_id) references round,
    check ((level is null) = (due is null))
);
update round set items_basis = null, to_be_prepared = true where released_at is null;

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
alter table parcel_search rename to parcel_search_before;
alter index parcel_search_pkey rename to parcel_search_before_pkey;

-- Its rows come by the ten thousand and are only ever written with the parcels and names that they belong to, which stay.
create table parcel_search (
    book_id bigint not null,
    parcel_id bigint not null,
    addressee_id bigint not null,
    -- Of the items on its statements.
    numbers text[] not null,
    -- Whose accounts are on them, and who gets them.
    accounts text[] not null,
    primary key (book_id, parcel_id)
);
insert into parcel_search (book_id, parcel_id, addressee_id, numbers, accounts)
select s.book_id, s.parcel_id, a.id, s.numbers, s.accounts from parcel_search_before s join addressee a on a.book_id = s.book_id and md5(a.words) = md5(s.words);
drop table parcel_search_before;
create index parcel_search_addressee on parcel_search (book_id, addressee_id);

-- What a release adds is put in order soon after it and not within it.
create index parcel_search_numbers on parcel_search using gin (numbers) with (gin_pending_list_limit = 65536);
create index parcel_search_accounts on parcel_search using gin (accounts) with (gin_pending_list_limit = 65536);
alter table parcel_search set (autovacuum_vacuum_insert_threshold = 1000, autovacuum_vacuum_insert_scale_factor = 0);
