-- What catches the eye in the message of a parcel, the wording that it was filled from, and which of the passages of that stand in it, a
-- bit each. The wording is what it was when the parcel was made up, and may be another by now.
alter table parcel
    add wording_id bigint,
    add passages bigint not null default 0,
    add remarks jsonb not null default '[]';

-- What somebody said is meant so, in whatever parcel it stands.
create table wording_meant (
    book_id bigint not null,
    wording_id bigint not null,
    code text not null,
    quote text not null,
    said_by bigint not null references person,
    said_at timestamptz not null default now(),
    primary key (book_id, wording_id, code, quote),
    foreign key (book_id, wording_id) references wording
);
create index wording_meant_person on wording_meant (said_by);
