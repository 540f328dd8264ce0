-- How often making a parcel's message was begun and never came to an end: a fault that ends the process would be met again by
-- whoever claims the parcel next, and for ever.
alter table parcel add makings smallint not null default 0;
