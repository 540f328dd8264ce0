-- The content of files that go with messages, once however often each was given in, and however often it goes.
create table enclosure_content (
    book_id bigint not null references book,
    sha256 bytea not null check (length(sha256) = 32),
    bytes bytea not null,
    primary key (book_id, sha256)
);
alter table enclosure_content alter column bytes set storage external;

-- A file as it was given in, or a part of one.
create table enclosure (
    book_id bigint not null,
    id bigint generated always as identity,
    name text not null check (name <> ''),
    sha256 bytea not null,
    size bigint not null,
    content_type text not null,
    used_for text not null check (used_for in ('copy', 'customer', 'picked')),
    -- Whose messages it goes with.
    customer text not null default '',
    -- What it came in: "October.zip", "invoices.pdf, pages 3 to 4".
    origin text not null,
    page_text text not null default '',
    -- Which document of the ledger it is a copy of: as its name and text say, by the numbers of which intake, and as a person says.
    recognised jsonb not null,
    recognised_by bigint,
    by_hand jsonb,
    -- All numbers that it is a copy of, or may be.
    numbers text[] not null default '{}',
    given_by bigint not null references person,
    given_at timestamptz not null default now(),
    deleted_at timestamptz,
    primary key (book_id, id),
    foreign key (book_id, sha256) references enclosure_content,
    check ((used_for = 'customer') = (customer <> ''))
);
create index enclosure_of_content on enclosure (book_id, sha256);
create index enclosure_given_by on enclosure (given_by);
create index enclosure_numbers on enclosure using gin (numbers);
create trigger enclosure_added after insert on enclosure referencing new table as after_it for each statement execute function note_content_change('enclosure', 'id', 'page_text');
create trigger enclosure_changed after update on enclosure referencing old table as before_it new table as after_it for each statement execute function note_content_change('enclosure', 'id', 'page_text,recognised_by');

-- A file that is on its way, piece by piece, until it is taken apart.
create table upload (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null,
    size bigint not null,
    -- By which the browser knows the file again after the line was cut.
    mark text not null,
    received bigint not null default 0,
    begun_by bigint not null references person,
    begun_at timestamptz not null default now(),
    primary key (book_id, id),
    check (received between 0 and size)
);
create index upload_of_file on upload (book_id, begun_by, name, size, mark);
create index upload_begun_by on upload (begun_by);

create table upload_piece (
    book_id bigint not null,
    upload_id bigint not null,
    at bigint not null,
    bytes bytea not null,
    primary key (book_id, upload_id, at),
    foreign key (book_id, upload_id) references upload on delete cascade
);
alter table upload_piece alter column bytes set storage external;

-- Where in names of files the number stands, and what may be enclosed beside what any book encloses.
alter table book add enclosure_pattern text not null default '', add enclosure_kinds text[] not null default '{}';

-- What a round encloses beside the document, and the files of each parcel, which are frozen with it.
alter table round add enclosing jsonb not null default '{}';
alter table parcel add enclosures jsonb not null default '[]';

-- A seal has a part for enclosures now; so far there were none.
update parcel set seal = seal || '\x44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a'::bytea where length(seal) = 288;
update parcel set seen_seal = seen_seal || '\x44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a'::bytea where length(seen_seal) = 288;
