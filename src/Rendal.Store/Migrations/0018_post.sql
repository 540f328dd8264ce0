-- Whether a parcel goes on paper, alone or beside its message.
alter table parcel
    add on_paper boolean not null default false,
    drop constraint parcel_way_check,
    add constraint parcel_way_check check (way in ('mail', 'file', 'post')),
    drop constraint parcel_state_check,
    add constraint parcel_state_check check (state in ('prepared', 'held', 'released', 'sending', 'sent', 'to-be-retried', 'refused', 'returned', 'unsure', 'exported', 'printed'));
-- Paper is in the record as messages are: a try is about a parcel, of which there may be no message.
alter table dispatch_try drop constraint dispatch_try_book_id_parcel_id_fkey, add foreign key (book_id, parcel_id) references parcel;
alter table dispatch_try drop constraint dispatch_try_ending_check;
alter table dispatch_try add constraint dispatch_try_ending_check
    check (ending in ('accepted', 'try-later', 'refused', 'unanswered', 'sign-in-refused', 'unreachable', 'stopped', 'exported', 'printed'));

-- What goes to one customer by post: the document as it is printed, and where it goes.
create table paper (
    book_id bigint not null,
    parcel_id bigint not null,
    name text not null,
    lines text[] not null,
    country text not null,
    bytes bytea not null,
    sha256 bytea not null check (octet_length(sha256) = 32),
    made_at timestamptz not null,
    primary key (book_id, parcel_id),
    foreign key (book_id, parcel_id) references parcel
);
create trigger paper_stays before update or delete on paper for each row execute function record_stays();

-- The post reaches customers now: whether a round does is worked out from their cards.
update customer set reachable = null where delivery in ('post', 'both');
