-- Whether nobody may release what they prepared themselves.
alter table book add needs_second_person boolean not null default false;

-- That somebody asked another one to release a round: the last time, with what it was then.
create table release_request (
    book_id bigint not null,
    round_id bigint not null,
    person_id bigint not null references person,
    asked_at timestamptz not null,
    -- The revision of the round, and the digest of the seals of what was ready.
    revision bigint not null,
    digest text not null,
    primary key (book_id, round_id),
    foreign key (book_id, round_id) references round
);
create index release_request_person on release_request (person_id);
