-- Someone who is to have a book and cannot sign in yet. The key is passed on by whoever invites, is good once, and only its
-- hash is here.
create table invitation (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null check (name <> ''),
    key_hash bytea not null unique check (length(key_hash) = 32),
    made_by bigint not null references person,
    made_at timestamptz not null,
    good_until timestamptz not null,
    primary key (book_id, id)
);
create unique index invitation_name on invitation (book_id, lower(name));
