-- When which reminder is to be sent.
alter table book add reminders jsonb not null default '{"levels": [{"days": 7, "gap": 0}, {"days": 21, "gap": 14}, {"days": 35, "gap": 14}], "maySkip": false, "mayRepeat": false}';

-- The level of the reminder that a parcel is; null for a statement.
alter table parcel add reminder_level smallint check (reminder_level > 0);

-- What a reminder counts as for each of its items, written when it is released. Whether it went is told by the parcel.
create table item_reminded (
    book_id bigint not null,
    item text not null,
    parcel_id bigint not null,
    level smallint not null check (level > 0),
    primary key (book_id, item, parcel_id),
    foreign key (book_id, parcel_id) references parcel
);

-- The reminder that is next for each account of a round of reminders, and whether it is due; null in a round of statements.
-- Sums of earlier versions are made anew with the parcels.
delete from round_account;
update round set items_basis = null;
alter table round_account
    add levels int[],
    add due boolean[],
    add check (cardinality(levels) = cardinality(customers) and cardinality(due) = cardinality(customers));
