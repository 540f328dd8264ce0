-- Where a person is told that a round has ended; empty for nowhere but the interface.
alter table person add address text not null default '';

-- Who is to be told when nothing of the round is on its way any more; null where nobody waits for that.
alter table round add ends_for bigint references person;
create index round_ends on round (id) where ends_for is not null;

create table round_end (
    book_id bigint not null,
    id bigint generated always as identity,
    round_id bigint not null,
    person_id bigint not null references person,
    ended_at timestamptz not null,
    -- How many parcels of what was released stood where then.
    counts jsonb not null,
    -- What became of the message about it; empty while none was tried.
    told text not null default '',
    seen_at timestamptz,
    primary key (book_id, id),
    foreign key (book_id, round_id) references round
);
create index round_end_unseen on round_end (book_id, person_id) where seen_at is null;
