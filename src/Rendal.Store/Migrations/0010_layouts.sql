-- Layouts of documents. A version never changes: what was released with it looks the same at any time.
create table layout (
    id bigint generated always as identity,
    book_id bigint not null references book,
    name text not null check (name <> ''),
    primary key (book_id, id)
);
create table layout_version (
    book_id bigint not null,
    layout_id bigint not null,
    version int not null check (version > 0),
    layout jsonb not null,
    made_by bigint not null references person,
    made_at timestamptz not null,
    primary key (book_id, layout_id, version),
    foreign key (book_id, layout_id) references layout
);

-- The layouts of a book for what is sent; null for the one that is there before any was made.
alter table book
    add statement_layout bigint,
    add reminder_layout bigint,
    add foreign key (id, statement_layout) references layout (book_id, id),
    add foreign key (id, reminder_layout) references layout (book_id, id);

-- The layout that was picked for a round (null for the book's), and the version that its parcels were last made up or released with.
alter table round
    add picked_layout bigint,
    add layout_id bigint,
    add layout_version int,
    add foreign key (book_id, picked_layout) references layout,
    add foreign key (book_id, layout_id, layout_version) references layout_version,
    add check ((layout_id is null) = (layout_version is null));
