-- What was reminded of one customer, found by what its items' keys begin with, whatever the database sorts by.
create index item_reminded_customer on item_reminded (book_id, item collate "C");
create index parcel_reminder on parcel (book_id, round_id) where reminder_level is not null;
