-- Cards: contacts with roles, and all that a customer list can say.
alter table customer
    add contacts jsonb not null default '[]',
    add salutation text not null default '',
    add delivery text not null default 'email' check (delivery in ('email', 'post', 'both', 'nothing')),
    add terms_from_month_end boolean not null default false,
    add head_office text not null default '' check (head_office <> key),
    add unit text not null default '',
    add minimum_balance numeric check (minimum_balance >= 0),
    add own_wording bigint,
    add notes text not null default '',
    add extra jsonb not null default '{}',
    -- What the card is found by, in small letters; written together with the card.
    add search text not null default '',
    add foreign key (book_id, own_wording) references wording;

update customer set
    contacts = case when email = '' and contact = '' and title = '' then '[]'
        else jsonb_build_array(jsonb_build_object('name', contact, 'title', title, 'address', email, 'role', 'to', 'rounds', '[]'::jsonb)) end,
    search = lower(concat_ws(E'\n', key, name, contact, email));

alter table customer drop column contact, drop column title, drop column email;
create index customer_name on customer (book_id, lower(name), key);
create index customer_address on customer (book_id, coalesce(contacts -> 0 ->> 'address', ''), key);
create index customer_unit on customer (book_id, unit, key);

-- A file is taken in for the ledger or for the customers' cards.
alter table intake
    add kind text not null default 'ledger' check (kind in ('ledger', 'customers')),
    add sheet text,
    add rows_left_out int not null default 0;
drop index intake_kept;
create index intake_kept on intake (book_id, kind, kept_at desc) where state = 'kept';

-- The rows of each customer in an intake. A list a customer is written in order and once; an index on a million rows
-- would be written a million times, each time at another place.
create table ledger_customer (
    book_id bigint not null,
    intake_id bigint not null,
    customer text not null check (customer <> ''),
    rows int[] not null check (cardinality(rows) > 0),
    primary key (book_id, intake_id, customer),
    foreign key (book_id, intake_id) references intake
);
insert into ledger_customer select book_id, intake_id, customer, array_agg(row order by row) from ledger_row group by book_id, intake_id, customer;
drop index ledger_row_customer;

-- Rows are written in one transaction with ledger_customer, which refers to the intake once for each customer; to look the
-- same intake up again for each of a million rows takes longer than all else about them.
alter table ledger_row drop constraint ledger_row_book_id_intake_id_fkey;

-- The cards as they were before a customer list was taken in, so that it can be undone as a whole; null where there was none.
create table card_before (
    book_id bigint not null,
    intake_id bigint not null,
    key text not null,
    card jsonb,
    primary key (book_id, intake_id, key),
    foreign key (book_id, intake_id) references intake
);

-- Values put right over the source. One that was taken back stays, with who did it.
create table correction (
    book_id bigint not null references book,
    id bigint generated always as identity,
    kind text not null check (kind in ('cell', 'everywhere', 'row-left-out', 'customers-joined', 'card')),
    column_heading text not null default '',
    concerns text not null default '',
    was text not null default '',
    becomes text not null default '',
    reason text not null default '',
    -- Where it was seen, for people.
    file_name text not null default '',
    sheet text,
    row int not null default 0,
    made_by bigint not null references person,
    made_at timestamptz not null,
    taken_back_by bigint references person,
    taken_back_at timestamptz,
    primary key (book_id, id),
    check ((taken_back_by is null) = (taken_back_at is null)),
    check (kind <> 'row-left-out' or reason <> '')
);
create unique index correction_once on correction (book_id, kind, column_heading, concerns, was) where taken_back_at is null;

-- The way to read one kind of file, found again by its headings.
create table reading (
    book_id bigint not null references book,
    id bigint generated always as identity,
    kind text not null check (kind in ('ledger', 'customers')),
    headings text[] not null check (cardinality(headings) > 0),
    reading jsonb not null,
    file_name text not null,
    used_at timestamptz not null,
    primary key (book_id, id),
    unique (book_id, kind, headings)
);
