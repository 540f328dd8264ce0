-- Choices of who is written to about what, under a name, to be used again.
create table saved_choice (
    book_id bigint not null references book,
    id bigint generated always as identity,
    name text not null check (name <> ''),
    choice jsonb not null,
    made_by bigint not null references person,
    made_at timestamptz not null,
    primary key (book_id, id)
);
create unique index saved_choice_name on saved_choice (book_id, lower(name));
