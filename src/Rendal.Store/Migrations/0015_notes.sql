-- What people added to the record of a parcel: what they decided about it, what they heard. It stays as it was written.
create table dispatch_note (
    book_id bigint not null,
    id bigint generated always as identity,
    parcel_id bigint not null,
    person_id bigint not null references person,
    written_at timestamptz not null,
    text text not null check (text <> ''),
    primary key (book_id, id),
    foreign key (book_id, parcel_id) references parcel
);
create index dispatch_note_parcel on dispatch_note (book_id, parcel_id);
create trigger note_stays before update or delete on dispatch_note for each row execute function record_stays();
