-- Who changes a round names the revision that they saw, and is told what others changed since.
alter table round add revision bigint not null default 1;

create table round_change (
    book_id bigint not null,
    round_id bigint not null,
    -- The revision that the change made.
    revision bigint not null check (revision > 1),
    person_id bigint not null references person,
    changed_at timestamptz not null default now(),
    about text not null check (about in ('settings', 'customer', 'item', 'release')),
    -- The customer or the item that it is about.
    subject text not null default '',
    -- The settings as they were before it.
    settings jsonb,
    primary key (book_id, round_id, revision),
    foreign key (book_id, round_id) references round,
    check ((about = 'settings') = (settings is not null)),
    check ((about in ('customer', 'item')) = (subject <> ''))
);
