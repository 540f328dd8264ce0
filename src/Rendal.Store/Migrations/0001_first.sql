-- Every table of the job begins its key with book_id: a query that forgets the book finds nothing.

create table person (
    id bigint generated always as identity primary key,
    name text not null check (name <> ''),
    password_hash text not null,
    failed_sign_ins int not null default 0 check (failed_sign_ins >= 0),
    sign_in_from timestamptz not null default '-infinity',
    made_at timestamptz not null default now()
);
create unique index person_name on person (lower(name));

create table book (
    id bigint generated always as identity primary key,
    name text not null check (name <> ''),
    currency char(3) not null,
    terms_days int not null default 30 check (terms_days between 0 and 3650),
    time_zone text not null default 'Europe/London',
    ageing_edges int[] not null default '{30,60,90}',
    address_lines text[] not null default '{}',
    contact_lines text[] not null default '{}',
    payment_lines text[] not null default '{}',
    made_at timestamptz not null default now()
);

create table book_person (
    book_id bigint not null references book,
    person_id bigint not null references person,
    primary key (book_id, person_id)
);

create table stored_file (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null,
    size bigint not null check (size >= 0),
    sha256 bytea not null check (length(sha256) = 32),
    stored_at timestamptz not null default now(),
    primary key (book_id, id)
);

-- In parts of at most a megabyte, so that a file of any size is written and read in bounded memory.
create table stored_file_part (
    book_id bigint not null,
    file_id bigint not null,
    part int not null check (part >= 0),
    bytes bytea not null,
    primary key (book_id, file_id, part),
    foreign key (book_id, file_id) references stored_file on delete cascade
);
alter table stored_file_part alter column bytes set storage external;

create table intake (
    book_id bigint not null references book,
    id bigint generated always as identity,
    file_id bigint not null,
    state text not null default 'looked-at' check (state in ('looked-at', 'kept', 'undone')),
    change jsonb not null default '{}',
    -- Whether the file gave what is outstanding; else full amounts that are settled oldest first.
    outstanding boolean not null default true,
    rows_read int not null default 0,
    rows_kept int not null default 0,
    made_by bigint not null references person,
    made_at timestamptz not null default now(),
    kept_at timestamptz,
    primary key (book_id, id),
    foreign key (book_id, file_id) references stored_file,
    check ((state = 'looked-at') = (kept_at is null))
);
create index intake_kept on intake (book_id, kept_at desc) where state = 'kept';

create table ledger_row (
    book_id bigint not null,
    intake_id bigint not null,
    row int not null check (row > 0),
    customer text not null check (customer <> ''),
    customer_name text not null,
    kind smallint not null check (kind between 0 and 4),
    number text not null,
    date date,
    due date not null,
    currency char(3) not null,
    original numeric not null,
    open numeric not null,
    reference text not null,
    held text not null,
    unit text not null,
    email text not null,
    extra jsonb not null,
    primary key (book_id, intake_id, row),
    foreign key (book_id, intake_id) references intake
);
create index ledger_row_customer on ledger_row (book_id, intake_id, customer);

create table row_set_aside (
    book_id bigint not null,
    intake_id bigint not null,
    row int not null check (row > 0),
    customer text,
    currency char(3),
    amount numeric not null,
    primary key (book_id, intake_id, row),
    foreign key (book_id, intake_id) references intake
);

create table finding (
    book_id bigint not null,
    intake_id bigint not null,
    position int not null,
    code text not null,
    severity smallint not null check (severity between 0 and 2),
    row int not null,
    column_heading text,
    customer text,
    message text not null,
    remedy text not null,
    primary key (book_id, intake_id, position),
    foreign key (book_id, intake_id) references intake
);

create table customer (
    book_id bigint not null references book,
    key text not null check (key <> ''),
    name text not null check (name <> ''),
    contact text not null default '',
    title text not null default '',
    postal_lines text[] not null default '{}',
    country text not null default '',
    email text not null default '',
    language text not null default 'en',
    terms_days int check (terms_days between 0 and 3650),
    on_hold boolean not null default false,
    from_ledger boolean not null default false,
    primary key (book_id, key)
);

create table wording (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null check (name <> ''),
    language text not null default 'en',
    subject text not null,
    body text not null,
    primary key (book_id, id)
);

create table sender (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null,
    address text not null check (address like '%@%'),
    host text not null check (host <> ''),
    port int not null check (port between 1 and 65535),
    security text not null check (security in ('none', 'starttls', 'tls')),
    user_name text not null default '',
    password bytea,
    paused text not null default '',
    primary key (book_id, id)
);

create table round (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null check (name <> ''),
    intake_id bigint not null,
    choice jsonb not null,
    wording_id bigint not null,
    sender_id bigint not null,
    made_by bigint not null references person,
    made_at timestamptz not null default now(),
    prepared_at timestamptz,
    released_by bigint references person,
    released_at timestamptz,
    paused boolean not null default false,
    primary key (book_id, id),
    foreign key (book_id, intake_id) references intake,
    foreign key (book_id, wording_id) references wording,
    foreign key (book_id, sender_id) references sender,
    check ((released_by is null) = (released_at is null))
);

-- What a person decided about a customer in a round; it outlives each new preparation.
create table round_decision (
    book_id bigint not null,
    round_id bigint not null,
    customer text not null,
    decision text not null check (decision in ('held', 'removed')),
    reason text not null default '',
    decided_by bigint not null references person,
    decided_at timestamptz not null default now(),
    primary key (book_id, round_id, customer),
    foreign key (book_id, round_id) references round
);

create table parcel (
    book_id bigint not null,
    id bigint generated always as identity,
    round_id bigint not null,
    customer text not null,
    name text not null,
    position int not null,
    state text not null check (state in ('prepared', 'held', 'released', 'sending', 'sent', 'to-be-retried', 'refused', 'returned', 'unsure')),
    recipients text[] not null,
    problem text not null default '',
    sums jsonb not null,
    items int not null,
    -- Frozen when the parcel is released; what is sent is made from these alone and from rows that do not change.
    subject text,
    body text,
    card jsonb,
    tries int not null default 0,
    try_from timestamptz,
    worker bigint,
    primary key (book_id, id),
    unique (book_id, round_id, customer),
    foreign key (book_id, round_id) references round,
    check (state in ('prepared', 'held') or (subject is not null and body is not null and card is not null)),
    check ((state = 'sending') = (worker is not null)),
    check (state in ('prepared', 'held') or problem = '')
);
create index parcel_round on parcel (book_id, round_id, position);
create index parcel_waiting on parcel (try_from, id) where state in ('released', 'to-be-retried');
create index parcel_sending on parcel (worker) where state = 'sending';

create table left_out (
    book_id bigint not null,
    round_id bigint not null,
    position int not null,
    customer text,
    currency char(3),
    reason text not null,
    amount numeric not null,
    items int not null,
    primary key (book_id, round_id, position),
    foreign key (book_id, round_id) references round
);

create table round_proof (
    book_id bigint not null,
    round_id bigint not null,
    currency char(3) not null,
    ledger numeric not null,
    parcels numeric not null,
    left_out numeric not null,
    primary key (book_id, round_id, currency),
    foreign key (book_id, round_id) references round,
    check (ledger = parcels + left_out)
);

-- The exact copy of each message, made before its first byte goes out and the same for every try.
create table message (
    book_id bigint not null,
    parcel_id bigint not null,
    message_id text not null unique,
    subject text not null,
    sender_address text not null,
    recipients text[] not null,
    bytes bytea not null,
    sha256 bytea not null check (length(sha256) = 32),
    made_at timestamptz not null,
    primary key (book_id, parcel_id),
    foreign key (book_id, parcel_id) references parcel (book_id, id)
);
alter table message alter column bytes set storage external;

create table dispatch_try (
    book_id bigint not null,
    id bigint generated always as identity,
    parcel_id bigint not null,
    worker bigint not null,
    started_at timestamptz not null,
    -- Written when the server has all of the message but the line that ends it: from here on a cut leaves it unsure.
    ending_at timestamptz,
    ended_at timestamptz,
    ending text check (ending in ('accepted', 'try-later', 'refused', 'unanswered', 'sign-in-refused', 'stopped')),
    answer text not null default '',
    recipients jsonb not null default '[]',
    primary key (book_id, id),
    foreign key (book_id, parcel_id) references message,
    check ((ended_at is null) = (ending is null))
);
create index dispatch_try_parcel on dispatch_try (book_id, parcel_id);
create index dispatch_try_time on dispatch_try (book_id, started_at desc);

create sequence worker_number;
