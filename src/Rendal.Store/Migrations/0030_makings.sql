-- How often the program was cut off while it made a parcel's message: a fault that ends the process would be met again by
-- whoever claims the parcel next, and for ever.
alter table parcel add makings smallint not null default 0;
