-- Chosen parcels of a round sent to oneself first: a round of its own, which is in no list, no history and no reminder.
alter table round
    add rehearses bigint,
    add rehearsed_to text,
    add check ((rehearses is null) = (rehearsed_to is null)),
    add foreign key (book_id, rehearses) references round;
create index round_rehearses on round (book_id, rehearses) where rehearses is not null;

-- Who has looked at which message of a rehearsal. Its parcel keeps the seal that it was made by.
create table rehearsal_look (
    book_id bigint not null,
    parcel_id bigint not null,
    person_id bigint not null references person,
    looked_at timestamptz not null,
    primary key (book_id, parcel_id, person_id),
    foreign key (book_id, parcel_id) references parcel (book_id, id)
);
create index rehearsal_look_person on rehearsal_look (person_id);
