-- The round in which the customer of a parcel that did not arrive is written to again; null while none is made.
alter table parcel add goes_on_in bigint, add foreign key (book_id, goes_on_in) references round;
create index parcel_goes_on_in on parcel (book_id, goes_on_in) where goes_on_in is not null;
