-- Layouts of documents. A version never changes: what was released with it looks the same at any time.
create table layout (
    id bigint generated always as identity,
    book_id bigint not null references book,
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

-- What a layout is used for: statements, all reminders, or those of a level; in one language, or (empty) in any.
create table layout_use (
    book_id bigint not null,
    purpose text not null check (purpose ~ '^(statement|reminder|reminder-[1-9])$'),
    language text not null,
    layout_id bigint not null,
    primary key (book_id, purpose, language),
    foreign key (book_id, layout_id) references layout
);

-- The layout that a customer gets instead, and the one that was picked for a round; null for those of the book.
alter table customer add own_layout bigint, add foreign key (book_id, own_layout) references layout;
alter table round add picked_layout bigint, add foreign key (book_id, picked_layout) references layout;

-- The version that a parcel was made up with, and is sent with; null for the one that is there before any was made.
alter table parcel
    add layout_id bigint,
    add layout_version int,
    add foreign key (book_id, layout_id, layout_version) references layout_version,
    add check ((layout_id is null) = (layout_version is null));
