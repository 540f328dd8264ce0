-- What is too large for one message goes as several, one after the other. Which of them is next, or the last one that went, and how many
-- there are; counted from 0.
alter table parcel add message_index smallint not null default 0, add message_count smallint not null default 1,
    add check (message_index between 0 and message_count - 1);
alter table message add message_index smallint not null default 0;
alter table message drop constraint message_pkey, add primary key (book_id, parcel_id, message_index);
alter table delivery_attempt add message_index smallint not null default 0;
