-- What a person changed on the parcel of one customer in one round: whom it goes to, what it says.
create table parcel_change (
    book_id bigint not null,
    round_id bigint not null,
    customer text not null,
    change jsonb not null,
    changed_by bigint not null references person,
    changed_at timestamptz not null default now(),
    primary key (book_id, round_id, customer),
    foreign key (book_id, round_id) references round
);
create index parcel_change_person on parcel_change (changed_by);

-- It is kept by version, and like what is decided within a round, puts no other round behind.
create trigger parcel_change_added after insert on parcel_change referencing new table as after_it for each statement execute function note_content_change('decision', 'round_id,customer', '');
create trigger parcel_change_changed after update on parcel_change referencing old table as before_it new table as after_it for each statement execute function note_content_change('decision', 'round_id,customer', '');
create trigger parcel_change_removed after delete on parcel_change referencing old table as before_it for each statement execute function note_content_change('decision', 'round_id,customer', '');

-- Which parts of a parcel were changed so, for the list; and the change that it was released with.
alter table parcel
    add altered text[] not null default '{}',
    add change jsonb;

alter table round_change drop constraint round_change_about_check, drop constraint round_change_check1;
alter table round_change add check (about in ('settings', 'customer', 'parcel', 'item', 'release', 'stop')),
    add check ((about in ('customer', 'parcel', 'item')) = (subject <> ''));
