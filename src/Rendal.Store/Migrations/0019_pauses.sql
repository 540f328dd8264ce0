-- The pauses between the tries of a message that the server puts off, in minutes; after the last it is refused.
alter table sender add pauses int[] not null default '{1,5,15,60}' check (cardinality(pauses) <= 20 and 1 <= all (pauses) and 10080 >= all (pauses));

-- The parcel that a round was made to send once more; null for any other round.
alter table round add repeat_of bigint, add foreign key (book_id, repeat_of) references parcel;
