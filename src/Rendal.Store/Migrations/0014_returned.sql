-- What came in answer to messages that were sent: delivery reports and automatic replies, exactly as they came.
create table returned_mail (
    book_id bigint not null references book,
    id bigint generated always as identity,
    -- The parcel that it is about; null where it fits none that was sent from here.
    parcel_id bigint,
    kind text not null check (kind in ('failed', 'delayed', 'automatic-reply', 'other')),
    recipients text[] not null,
    status text not null,
    reason text not null,
    subject text not null,
    written_at timestamptz not null,
    taken_by bigint not null references person,
    taken_at timestamptz not null,
    bytes bytea not null,
    sha256 bytea not null check (length(sha256) = 32),
    primary key (book_id, id),
    unique (book_id, sha256),
    foreign key (book_id, parcel_id) references parcel
);
create index returned_mail_parcel on returned_mail (book_id, parcel_id);

-- Addresses that mail came back from for good. Parcels to them wait for a person, until one says that the address is good again.
create table address_returned (
    book_id bigint not null,
    address text not null check (address = lower(address)),
    returned_id bigint not null,
    primary key (book_id, address),
    foreign key (book_id, returned_id) references returned_mail
);

-- What went out is a record: the application adds to it and can neither alter nor remove what stands there.
create function record_stays() returns trigger language plpgsql as $$
begin
    raise exception 'The record of what went out cannot be altered or removed.' using errcode = 'restrict_violation';
end $$;
create trigger message_stays before update or delete on message for each row execute function record_stays();
create trigger try_stays before update on dispatch_try for each row when (old.ended_at is not null) execute function record_stays();
create trigger try_is_kept before delete on dispatch_try for each row execute function record_stays();
create trigger returned_stays before update or delete on returned_mail for each row execute function record_stays();
